import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { ProgressBarModule } from 'primeng/progressbar';
import { firstValueFrom } from 'rxjs';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { ImportsApi } from '../../api/imports-api';
import { LessonsApi } from '../../api/lessons-api';
import { Attempt } from '../../api/attempt';
import type { BoardInfo, Course, ListedRecord } from '../../api/shapes';
import { hasAnnotations } from '../../materials/imported-annotations/format-annotations';
import { ArchiveButton } from '../../records/export/archive-button';
import { LinksDialog } from '../../records/record-links/links-dialog';
import { LocalFile, LocalFiles } from '../../board/drawing/local-files';
import { pdfJs } from '../../board/drawing/pdf-js';
import { RecordCard } from '../../records/record-card/record-card';
import { PaperSource } from '../../board/drawing/paper-source';
import { Button } from '../../ui/button/button';
import { WindowTitle } from '../../ui/title/window-title';
import { Tip } from '../../ui/tip/tip';
import { formatDate, formatDay } from '../../ui/time/format-time';
import { WayIn } from '../../lesson/way-in/way-in';
import { BoardList } from './board-list';
import { CourseUpload } from './upload';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** For how long slides that are expected needn't be announced again, in ms. */
const EXPECTED = 60_000;

/** A course: its boards, its join link, its records. PDFs, slides and board files dropped anywhere on it become boards. */
@Component({
  selector: 'cua-course',
  imports: [
    Tip,
    ArchiveButton,
    BoardList,
    Button,
    LinksDialog,
    ProblemMessage,
    ProgressBarModule,
    RecordCard,
    RouterLink,
    WayIn,
    EmptyState,
  ],
  templateUrl: './course.html',
  styleUrl: './course.scss',
  host: {
    '(dragover)': 'over($event)',
    '(dragleave)': 'dropping.set(false)',
    '(drop)': 'drop($event)',
    '[class.dropping]': 'dropping()',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CourseScreen {
  /** From the address. */
  readonly course = input.required<string>();

  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly importsApi = inject(ImportsApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly router = inject(Router);
  private readonly local = inject(LocalFiles);
  /** When slides were last expected, in ms since 1970. */
  private expected = 0;
  protected readonly info = signal<Course | null>(null);
  protected readonly boards = signal<readonly BoardInfo[]>([]);
  protected readonly takenOut = signal<readonly BoardInfo[]>([]);
  protected readonly records = signal<readonly ListedRecord[]>([]);
  protected readonly papers = new PaperSource(this.local);
  protected readonly uploads = signal<readonly CourseUpload[]>([]);
  protected readonly attempt = new Attempt();
  protected readonly dropping = signal(false);
  /** Whether links to all its records are made and looked after. */
  protected readonly linking = signal(false);
  protected readonly students = computed(() => [
    ...new Set(this.records().flatMap(({ people }) => people)),
  ]);
  protected readonly percent = (part: number): number => Math.round(part * 100);

  constructor() {
    const title = inject(WindowTitle);
    effect(() => title.name(this.info()?.name ?? 'Course'));
    effect(() => {
      this.course();
      untracked(() => void this.load());
    });
    inject(DestroyRef).onDestroy(() => this.papers.close());
    // A board is about to be opened: what draws it is fetched meanwhile.
    void pdfJs();
    void import('../../lesson/board-screen/board');
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => {
      const { course, boards, takenOut, records } = await firstValueFrom(
        this.coursesApi.readCourse(this.course()),
      );
      this.info.set(course);
      this.boards.set(boards);
      this.takenOut.set(takenOut);
      this.records.set(records);
    });
  }

  /** A file is about to be chosen: what turns slides into pages starts meanwhile. */
  protected expect(): void {
    if (Date.now() - this.expected < EXPECTED) return;
    this.expected = Date.now();
    // A kindness: without it slides take a second longer.
    void firstValueFrom(this.importsApi.prepareImport()).catch(() => undefined);
  }

  protected over(event: DragEvent): void {
    event.preventDefault();
    this.expect();
    this.dropping.set(true);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.dropping.set(false);
    this.upload(event.dataTransfer?.files ?? null);
  }

  protected upload(files: FileList | null): void {
    for (const file of files ?? []) void this.send(file, files!.length === 1);
  }

  protected saying(upload: CourseUpload): string {
    return (
      upload.slides() ??
      (upload.reading() ? 'Reading its pages' : `${this.percent(upload.part())} %`)
    );
  }

  protected dismiss(upload: CourseUpload): void {
    upload.cancel();
    this.uploads.update((list) => list.filter((other) => other !== upload));
  }

  protected async empty(): Promise<void> {
    await this.attempt.make(async () => {
      const board = await firstValueFrom(
        this.boardsApi.createBoard(this.course(), {
          title: `Board of ${formatDate(Date.now())}`,
        }),
      );
      await this.router.navigate(['/boards', board.id]);
    });
  }

  /** A lesson without a board that was chosen for it: an empty page is there. */
  protected async openLesson(): Promise<void> {
    await this.attempt.make(async () => {
      const wish = { on: 'empty', title: formatDay(Date.now()) } as const;
      const { board } = await firstValueFrom(this.lessonsApi.openCourseLesson(this.course(), wish));
      await this.router.navigate(['/boards', board]);
    });
  }

  private async send(file: File, openIt: boolean): Promise<void> {
    const upload = new CourseUpload(this.boardsApi, this.importsApi, file, this.course());
    this.uploads.update((list) => [...list, upload]);
    const local = new LocalFile(file);
    const board = await upload.run();
    if (!board) return local.discard();
    const { annotations } = board;
    // The board shows what came as it came, unless something was taken out of it.
    if (board.file && !hasAnnotations(annotations)) this.local.add(board.file, local);
    else local.discard();
    this.uploads.update((list) => list.filter((other) => other !== upload));
    this.boards.update((list) => [board, ...list]);
    if (openIt)
      await this.router.navigate(['/boards', board.id], {
        state: { import: board.job ?? null, annotations },
      });
  }
}
