import { onlyBy, pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import type { Id } from '@cuaderno/core/id';
import type { Operation } from '@cuaderno/core/ops';
import { operationInRecord, placeOf } from '@cuaderno/core/records';
import { pageInView } from '@cuaderno/core/replay';
import type { Drawing } from '@cuaderno/core/replay';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import type { BoardInfo } from '../../api/shapes';
import { CopyDialog } from '../../board/copying/copy-dialog';
import type { CopySource } from '../../board/copying/copy-dialog';
import { PaperSource } from '../../board/drawing/paper-source';
import { MediaLayer } from '../../board/media/media-layer';
import { PageJump } from '../../board/pages/page-jump';
import { PageStrip } from '../../board/pages/page-strip';
import { Stage } from '../../board/stage/stage';
import { NO_MARKS } from '../../board/stage/stage-marks';
import type { StageMarks } from '../../board/stage/stage-marks';
import { FeatureViews } from '../../live/features/feature-views';
import { inAddress } from '../../ui/address/address';
import { Button } from '../../ui/button/button';
import { WindowTitle } from '../../ui/title/window-title';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { SaveRecordDialog } from '../export/save-record-dialog';
import type { FilmSource } from '../film/film-source';
import { LateLinesDialog } from '../late-lines/late-lines-dialog';
import { WaitingLateLines } from '../late-lines/waiting-late-lines';
import { LinksDialog } from '../record-links/links-dialog';
import { LessonTimeline } from '../replay/lesson-timeline';
import { ReplayBar } from '../replay/replay-bar';
import { StatisticsPanel } from '../statistics/statistics-panel';
import { OpenRecord } from './open-record';
import { PrintRecord } from '../print/print-record';
import { RecordBar } from './record-bar';
import { RecordFacts } from './record-facts';
import { isBesidePages, recordView } from './record-view';
import type { RecordView } from './record-view';

const NONE: readonly Drawing[] = [];
const NO_GROUPS: ReadonlyMap<Id, string> = new Map();

/** What a closed lesson has left: its pages as they stood, how they came about, and who was there. */
@Component({
  selector: 'cua-record',
  imports: [
    Button,
    CopyDialog,
    FeatureViews,
    LateLinesDialog,
    LessonTimeline,
    LinksDialog,
    MediaLayer,
    PageJump,
    PageStrip,
    PrintRecord,
    ProblemMessage,
    RecordBar,
    RecordFacts,
    ReplayBar,
    SaveRecordDialog,
    Stage,
    StatisticsPanel,
  ],
  providers: [OpenRecord],
  templateUrl: './record.html',
  styleUrl: './record.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordScreen {
  /** From the address. */
  readonly lesson = input.required<string>();
  /** The page to begin at, where the address names one. */
  readonly at = input<Id | undefined>(undefined, { alias: 'page' });

  protected readonly record = inject(OpenRecord);
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private isFirst = true;
  private readonly waitingLate = inject(WaitingLateLines);
  protected readonly stage = viewChild(Stage);
  protected readonly papers = new PaperSource();
  protected readonly page = signal<Id | null>(null);
  /** What is shown of the lesson, and what was asked for and may have to be fetched first. */
  protected readonly view = signal<RecordView>('end');
  protected readonly asked = inAddress<RecordView>('view', recordView, 'end');
  protected readonly isBesidePages = computed(() => isBesidePages(this.view()));
  protected readonly signed = signal(false);
  protected readonly only = signal<Id | null>(null);
  /** What is open over the record. */
  protected readonly copying = signal<CopySource | null>(null);
  protected readonly saving = signal(false);
  protected readonly printing = signal(false);
  protected readonly linking = signal(false);
  protected readonly lookingAtLate = signal(false);

  protected readonly shown = computed<Board | null>(() => {
    const [board, only] = [this.boardOf(this.view()), this.only()];
    return board && only ? onlyBy(board, only) : board;
  });
  protected readonly drawing = computed<readonly Drawing[]>(() => {
    if (this.view() !== 'replay') return NONE;
    const [drawing, only] = [this.record.player()?.moment().drawing ?? NONE, this.only()];
    return only ? drawing.filter(({ by }) => by === only) : drawing;
  });
  private readonly authorOf = computed(() => {
    const authors = this.record.authors();
    return (id: Id): Author | null => authors.get(id) ?? null;
  });
  protected readonly marks: StageMarks = {
    ...NO_MARKS,
    authorOf: this.authorOf,
    signed: this.signed,
  };
  protected readonly pageNames = computed<ReadonlyMap<Id, string>>(() => {
    const board = this.record.board();
    const pages = board ? pagesInOrder(board) : [];
    return new Map(pages.map(({ id, name }, i) => [id, `${i + 1}${name ? ` · ${name}` : ''}`]));
  });
  /** The page in view, and its number. */
  protected readonly inView = computed(() => {
    const board = this.shown();
    const pages = board ? pagesInOrder(board) : [];
    const at = Math.max(
      0,
      pages.findIndex(({ id }) => id === this.page()),
    );
    return { page: pages[at] ?? null, number: at + 1 };
  });
  /** Where the pages of each board begin, where it was on several. */
  protected readonly groups = computed<ReadonlyMap<Id, string>>(() => {
    const [board, boards] = [this.shown(), this.record.opened()?.boards ?? []];
    if (!board || boards.length < 2) return NO_GROUPS;
    const first = new Map<number, Id>();
    for (const page of pagesInOrder(board))
      if (!first.has(placeOf(page))) first.set(placeOf(page), page.id);
    return new Map([...first].map(([place, page]) => [page, boards[place]?.title ?? '']));
  });
  /** What an operation on one of its boards is in the record. */
  protected readonly placed = computed(() => {
    const boards = this.record.opened()?.boards ?? [];
    return (op: Operation, board: Id): Operation => {
      const place = boards.findIndex((one) => one.board === board);
      return operationInRecord(op, { id: board, place: Math.max(0, place) }) as Operation;
    };
  });
  /** Late lines of its students that wait to be looked at. */
  protected readonly lateHere = computed(() =>
    this.waitingLate.list().filter(({ lesson }) => lesson === this.lesson()),
  );
  protected readonly lateCount = computed(() =>
    this.lateHere().reduce((sum, { count }) => sum + count, 0),
  );
  protected readonly students = computed(() => [
    ...new Set(
      this.record.attendance().flatMap(({ role, name }) => (role === 'student' ? [name] : [])),
    ),
  ]);

  constructor() {
    const title = inject(WindowTitle);
    effect(() => title.name(this.record.info()?.title ?? 'Record'));
    effect(() => {
      this.lesson();
      untracked(() => void this.load());
    });
    // A replay shows the page on which something happens, or to which the tutor turned, whichever was
    // later; once: then one may look around.
    const happensOn = computed(() => {
      const player = this.record.player();
      if (!player || this.view() !== 'replay') return null;
      return pageInView(player.moment(), this.record.turns(), player.time());
    });
    effect(() => {
      const page = happensOn();
      if (page) untracked(() => this.stage()?.view.goTo(page));
    });
    inject(DestroyRef).onDestroy(() => this.papers.close());
  }

  protected async load(): Promise<void> {
    // The address names what is looked at; the record of another lesson begins at its end.
    const view = this.isFirst ? this.asked() : 'end';
    this.isFirst = false;
    this.view.set('end');
    this.asked.set('end');
    void this.waitingLate.load();
    const lesson = this.lesson();
    if (!(await this.record.open(lesson)) || lesson !== this.lesson()) return;
    // The address names a page, or one begins where the lesson did.
    const page = this.at() ?? this.record.opened()?.statistics?.pages?.[0]?.page;
    if (page) afterNextRender(() => this.stage()?.view.goTo(page), { injector: this.injector });
    if (view !== 'end') await this.show(view);
  }

  protected async show(view: RecordView): Promise<void> {
    this.record.player()?.pause();
    this.asked.set(view);
    const needsReplay = view === 'before' || view === 'replay';
    if (needsReplay && !(await this.record.loadReplay())) return this.asked.set(this.view());
    // Something else was asked for meanwhile.
    if (this.asked() !== view) return;
    this.view.set(view);
    if (isBesidePages(view)) return;
    // In a replay things happen anywhere on the page: all of it is in the window.
    if (view === 'replay') this.stage()?.view.fitPage();
    else this.stage()?.view.fitWidth();
  }

  protected copied(board: BoardInfo): void {
    this.copying.set(null);
    void this.router.navigate(['/boards', board.id]);
  }

  protected readonly film = (): Promise<FilmSource> => this.record.film();

  private boardOf(view: RecordView): Board | null {
    switch (view) {
      case 'end':
      case 'statistics':
      case 'about':
        return this.record.board();
      case 'before':
        return this.record.before();
      case 'replay':
        return this.record.player()?.moment().board ?? null;
    }
  }
}
