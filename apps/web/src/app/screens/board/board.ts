import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  HostListener,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { pagesInOrder } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import {
  Bell,
  DoorOpen,
  Download,
  FolderOpen,
  Footprints,
  Info,
  LocateFixed,
  NotebookText,
  Pencil,
  Search,
} from 'lucide';
import { Api, troubleOf } from '../../api/api';
import type { Trouble } from '../../api/api';
import type { BoardInfo, Course } from '../../api/shapes';
import { SaveSheet } from '../../export/save-sheet';
import { FindPanel } from '../../find/find-panel';
import { Icon } from '../../icons/icon';
import { BoardSession } from '../../live/board-session';
import { MarginPanel } from '../../margin/margin-panel';
import { ChooserPanel } from '../../materials/chooser-panel';
import { MaterialsStore } from '../../materials/materials-store';
import type { AssetInfo } from '../../materials/shapes';
import { PageSheet } from '../../pages/page-sheet';
import { PageStrip } from '../../pages/page-strip';
import { LessonWatch } from '../../notice/lesson-watch';
import { NoticeWishes } from '../../notice/notice-wishes';
import { Notices } from '../../notice/notices';
import { DoorList } from '../../people/door-list';
import { PeoplePanel } from '../../people/people-panel';
import { LocalFiles } from '../../stage/local-files';
import { PaperSource } from '../../stage/paper-source';
import { sayLength } from '../../time/say-time';
import { WorkArea } from '../../work/work-area';
import { JoinCard } from '../../way-in/join-card';
import { LeaveSheet } from './leave-sheet';
import { MoveSheet } from './move-sheet';
import { PageDesk } from './page-desk';
import { inShort, ReportSheet } from './report-sheet';
import { SlideReportDesk } from './slide-report';

const MARGIN_KEY = 'cuaderno.margin';

type CourseOfBoard = Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode' | 'lesson'>;

/** A board as its tutor has it, between lessons and in them. */
@Component({
  selector: 'cua-board',
  imports: [
    ChooserPanel,
    FindPanel,
    Icon,
    DoorList,
    JoinCard,
    LeaveSheet,
    MarginPanel,
    MoveSheet,
    NoticeWishes,
    PageSheet,
    PageStrip,
    PeoplePanel,
    ReportSheet,
    RouterLink,
    SaveSheet,
    WorkArea,
  ],
  templateUrl: './board.html',
  styleUrl: './board.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardScreen {
  /** From the address. */
  readonly board = input.required<string>();

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly materials = inject(MaterialsStore);
  private readonly area = viewChild(WorkArea);
  private readonly doorList = viewChild<unknown, ElementRef<HTMLElement>>(DoorList, {
    read: ElementRef,
  });
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly session = signal<BoardSession | null>(null);
  protected readonly info = signal<BoardInfo | null>(null);
  protected readonly course = signal<CourseOfBoard | null>(null);
  protected readonly page = signal<Id | null>(null);
  protected readonly trouble = signal<Trouble | null>(null);
  protected readonly leaving = signal(false);
  protected readonly wishing = signal(false);
  protected readonly notices = inject(Notices);
  private readonly watch = new LessonWatch((kind, words) => this.notices.tell(kind, words));
  protected readonly busy = signal(false);
  protected readonly desk = new PageDesk({
    session: () => this.session(),
    page: () => this.page(),
    goTo: (page) => this.area()?.goTo(page),
  });
  protected readonly icons = {
    Bell,
    DoorOpen,
    Download,
    FolderOpen,
    Footprints,
    Info,
    LocateFixed,
    NotebookText,
    Pencil,
    Search,
  };
  /** Whether the margin is open beside the page. It stays as it was left, on this machine. */
  protected readonly margin = signal(localStorage.getItem(MARGIN_KEY) === 'open');
  protected readonly slides = new SlideReportDesk(this.api, () => this.board());
  protected readonly inShort = inShort;
  /** What is open beside the board, in the one place there is for it. */
  protected readonly side = signal<'find' | 'materials' | null>(null);
  protected readonly saving = signal(false);
  protected readonly naming = signal(false);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('titleField');
  private readonly now = signal(Date.now());

  protected readonly title = computed(
    () => this.session()?.board().title || this.info()?.title || '',
  );
  protected readonly lesson = computed(() => this.session()?.lesson() ?? null);
  protected readonly elapsed = computed(() =>
    sayLength(Math.max(0, this.now() - (this.lesson()?.openedAt ?? this.now()))),
  );
  /** A lesson of this course runs on another of its boards. */
  protected readonly elsewhere = computed(() => {
    const lesson = this.course()?.lesson;
    return lesson && lesson.board !== this.board() && !this.lesson() ? lesson : null;
  });

  constructor() {
    effect(() => {
      const board = this.board();
      untracked(() => {
        this.session()?.close();
        this.session.set(new BoardSession(`/live/boards/${board}`));
        void this.load();
        const { import: job } = (history.state ?? {}) as { import?: string };
        void this.slides.load(job ?? null);
      });
    });
    effect(() => {
      const session = this.session();
      if (!session?.lesson()) return this.watch.over();
      this.watch.arrivals(session.arrivals());
      this.watch.people(session.people());
    });
    effect(() => this.nameField()?.nativeElement.select());
    const clock = setInterval(() => this.now.set(Date.now()), 10_000);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(clock);
      this.slides.close();
      this.session()?.close();
      this.papers.close();
    });
  }

  protected async load(): Promise<void> {
    this.trouble.set(null);
    try {
      const { board, course } = await this.api.get<{ board: BoardInfo; course: CourseOfBoard }>(
        `/boards/${this.board()}`,
      );
      this.info.set(board);
      this.course.set(course);
    } catch (error) {
      this.trouble.set(troubleOf(error));
    }
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected gather(): void {
    const view = this.area()?.part;
    if (view) this.session()?.gather(view);
  }

  protected lay(asset: AssetInfo): void {
    this.area()?.lay(asset);
  }

  /** The page that a slide has become. */
  protected goToSlide(number: number): void {
    const board = this.session()?.board();
    const page =
      board &&
      pagesInOrder(board).find(({ paper }) => paper.kind === 'pdf' && paper.number === number);
    this.slides.dismiss();
    if (page) this.goTo(page.id);
  }

  protected rename(title: string): void {
    // Leaving the field after Enter says it twice.
    if (!this.naming()) return;
    this.naming.set(false);
    const former = this.title();
    const tidy = title.trim();
    if (tidy !== '' && tidy !== former)
      this.session()?.do({ kind: 'board.rename', title: tidy, former });
  }

  /** Finding is for all pages of the board, as the browser's own can't be. */
  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'f') return;
    if (!this.session()?.ready()) return;
    event.preventDefault();
    this.side.set('find');
  }

  protected toggle(side: 'find' | 'materials'): void {
    this.side.update((open) => (open === side ? null : side));
  }

  /** What was brought to the board lies among materials, too. */
  protected brought(): void {
    if (this.side() === 'materials') void this.materials.load();
  }

  protected toggleMargin(): void {
    this.margin.update((open) => !open);
    localStorage.setItem(MARGIN_KEY, this.margin() ? 'open' : 'shut');
  }

  protected async open(): Promise<void> {
    await this.try(async () => {
      // A touch is needed to ask: from now on somebody may be at the door.
      void this.notices.ask();
      await this.api.post(`/boards/${this.board()}/lesson`);
      this.now.set(Date.now());
    });
  }

  protected async close(): Promise<void> {
    const lesson = this.lesson();
    if (!lesson) return;
    await this.try(async () => {
      await this.api.post(`/lessons/${lesson.id}/close`);
      await this.router.navigate(['/records', lesson.id]);
    });
    this.leaving.set(false);
  }

  protected toDoor(): void {
    const list = this.doorList()?.nativeElement;
    list?.scrollIntoView({ block: 'nearest' });
    list?.querySelector<HTMLElement>('button')?.focus({ preventScroll: true });
  }

  /** The lesson stays open behind the tutor. */
  protected async stepOut(): Promise<void> {
    this.leaving.set(false);
    await this.router.navigate(this.course() ? ['/courses', this.course()!.id] : ['/']);
  }

  /** How many are at the door and wait for an answer. */
  protected readonly knocking = computed(
    () =>
      this.session()
        ?.arrivals()
        .filter(({ state }) => state === 'waiting').length ?? 0,
  );

  private async try(what: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await what();
    } catch (error) {
      this.trouble.set(troubleOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
