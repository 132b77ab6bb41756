import {
  boardFromSnapshot,
  colourOfPerson,
  initialsOf,
  nameOf,
  NOTHING_BESIDE,
  onlyBy,
  pagesInOrder,
  unpack,
} from '@cuaderno/core';
import type { Author, Board, BoardSnapshot, Id, RecordTimeline } from '@cuaderno/core';
import { lanesOf, penDown, shownPage } from '@cuaderno/core/replay';
import type { Drawing, ReplayEvent } from '@cuaderno/core/replay';
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
import { Router, RouterLink } from '@angular/router';
import type { MenuItem } from 'primeng/api';
import { ButtonModule } from 'primeng/button';
import { MenuModule } from 'primeng/menu';
import { TableModule } from 'primeng/table';
import {
  firstValueFrom,
  repeat,
  retry,
  startWith,
  Subscription,
  switchMap,
  takeWhile,
  tap,
  timer,
} from 'rxjs';
import { RecordsApi } from '../../api/records-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Attendance, BoardInfo, RecordInfo, RecordOpened } from '../../api/shapes';
import { CopyDialog } from '../../board/copying/copy-dialog';
import type { CopySource } from '../../board/copying/copy-dialog';
import { SaveRecordDialog } from '../export/save-record-dialog';
import type { FilmSource } from '../film/film-source';
import { LateLinesDialog } from '../late-lines/late-lines-dialog';
import { WaitingLateLines } from '../late-lines/waiting-late-lines';
import { FeatureViews } from '../../live/features/feature-views';
import { MediaLayer } from '../../board/media/media-layer';
import { LessonNotes } from '../notes/lesson-notes';
import { PageStrip } from '../../board/pages/page-strip';
import { WhoseInk } from '../../board/whose-ink/whose-ink';
import { LinksDialog } from '../record-links/links-dialog';
import { happeningsOf } from '../replay/happenings';
import { loadLessonLog } from '../replay/lesson-log';
import { LessonTimeline } from '../replay/lesson-timeline';
import type { Lane } from '../replay/lesson-timeline';
import { Player } from '../replay/player';
import { ReplayBar } from '../replay/replay-bar';
import { PaperSource } from '../../board/drawing/paper-source';
import { Stage } from '../../board/stage/stage';
import { StatisticsPanel } from '../statistics/statistics-panel';
import { formatClock, formatDate, formatLength, formatSpan } from '../../ui/time/format-time';

type Mode = 'end' | 'before' | 'replay' | 'statistics' | 'about';

const MODES: readonly { readonly mode: Mode; readonly label: string }[] = [
  { mode: 'before', label: 'Before' },
  { mode: 'end', label: 'At the end' },
  { mode: 'replay', label: 'Replay' },
  { mode: 'statistics', label: 'Statistics' },
  { mode: 'about', label: 'About' },
];

/** How often it is asked how far a record is written down, in ms. */
const ASK_EVERY = 700;

const NONE: readonly Drawing[] = [];

/** What a closed lesson has left: its pages as they stood, how they came about, and who was there. */
@Component({
  selector: 'cua-record',
  imports: [
    ButtonModule,
    CopyDialog,
    FeatureViews,
    StatisticsPanel,
    LessonNotes,
    LessonTimeline,
    LateLinesDialog,
    LinksDialog,
    MediaLayer,
    MenuModule,
    PageStrip,
    SaveRecordDialog,
    ReplayBar,
    RouterLink,
    Stage,
    TableModule,
    WhoseInk,
  ],
  templateUrl: './record.html',
  styleUrl: './record.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordScreen {
  /** From the address. */
  readonly lesson = input.required<string>();
  /** The page to begin at, where the address names one. */
  readonly at = input<Id | undefined>(undefined, { alias: 'page' });

  private readonly recordsApi = inject(RecordsApi);
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  protected readonly stage = viewChild(Stage);
  protected readonly papers = new PaperSource();
  protected readonly record = signal<RecordInfo | null>(null);
  protected readonly attendance = signal<readonly Attendance[]>([]);
  protected readonly board = signal<Board | null>(null);
  protected readonly page = signal<Id | null>(null);
  /** What is shown of the lesson, and what was asked for and may have to be fetched first. */
  protected readonly mode = signal<Mode>('end');
  protected readonly asked = signal<Mode>('end');
  protected readonly opened = signal<Pick<
    RecordOpened,
    'indexing' | 'statistics' | 'goesOn' | 'said'
  > | null>(null);
  protected readonly copying = signal<CopySource | null>(null);
  protected readonly waysOn = computed<MenuItem[]>(() => {
    const [record, goesOn] = [this.record(), this.opened()?.goesOn];
    if (!record) return [];
    const copy = (header: string, title: string, lessonInk: boolean) => () =>
      this.copying.set({
        ...{ of: { record: record.lesson }, course: record.course },
        ...{ header, title, lessonInk },
      });
    return [
      ...(goesOn
        ? [
            {
              label: goesOn.same ? 'On the same board' : 'On the board as it is now',
              command: () => void this.router.navigate(['/boards', goesOn.board]),
            },
          ]
        : []),
      {
        label: 'On a new board, as the lesson left it…',
        command: copy('A new board from this record', record.title, true),
      },
      {
        label: 'With a clean copy…',
        command: copy('A clean copy of this record', `${record.title}, clean`, false),
      },
    ];
  });
  private watching = Subscription.EMPTY;
  protected readonly modes = MODES;
  protected readonly player = signal<Player | null>(null);
  private readonly events = signal<readonly ReplayEvent[]>([]);
  protected readonly timeline = signal<RecordTimeline>(NOTHING_BESIDE);
  /** The tutor's, in the order of time. */
  private readonly turns = computed(() => {
    const tutor = this.attendance().find(({ role }) => role === 'tutor')?.id;
    return this.timeline().turns.filter(({ by }) => by === tutor);
  });
  /** From the opening of the lesson to its close. */
  protected readonly whole = computed(() => {
    const record = this.record();
    return { from: record?.openedAt ?? 0, to: record?.closedAt ?? 0 };
  });
  protected readonly lanes = computed<readonly Lane[]>(() => {
    const [stretches, down] = [lanesOf(this.events()), penDown(this.events())];
    return this.attendance().map((person, i) => ({
      id: person.id,
      label: nameOf(person),
      colour: colourOfPerson(i),
      stretches: stretches.get(person.id) ?? [],
      penDown: down.get(person.id) ?? 0,
    }));
  });
  /** In order of arrival. */
  protected readonly counted = computed(() =>
    this.attendance().map((person, i) => ({
      id: person.id,
      label: nameOf(person),
      colour: colourOfPerson(i),
    })),
  );
  protected readonly pageNames = computed<ReadonlyMap<Id, string>>(() => {
    const board = this.board();
    const pages = board ? pagesInOrder(board) : [];
    return new Map(pages.map(({ id, name }, i) => [id, `${i + 1}${name ? ` · ${name}` : ''}`]));
  });
  protected readonly happenings = computed(() => {
    const board = this.board();
    const numbers = new Map(board ? pagesInOrder(board).map(({ id }, i) => [id, i + 1]) : []);
    return happeningsOf(this.timeline(), this.attendance(), (page) => numbers.get(page) ?? null);
  });
  /** When something happened beside the pages. */
  private readonly beside = computed(() =>
    this.happenings().map(({ at }) => ({ from: at, to: at })),
  );
  /** As it came. */
  private log: Uint8Array | null = null;
  /** The board when the lesson opened. */
  private readonly before = signal<Board | null>(null);
  protected readonly signed = signal(false);
  /** The one person whose ink is shown; `null` for everyone's. */
  protected readonly only = signal<Id | null>(null);
  protected readonly shown = computed<Board | null>(() => {
    const [board, only] = [this.whatThereWas(), this.only()];
    return board && only ? onlyBy(board, only) : board;
  });
  private readonly whatThereWas = computed<Board | null>(() => {
    switch (this.mode()) {
      case 'end':
      case 'statistics':
      case 'about':
        return this.board();
      case 'before':
        return this.before();
      case 'replay':
        return this.player()?.moment().board ?? null;
    }
  });
  protected readonly drawing = computed<readonly Drawing[]>(() => {
    if (this.mode() !== 'replay') return NONE;
    const [drawing, only] = [this.player()?.moment().drawing ?? NONE, this.only()];
    return only ? drawing.filter(({ by }) => by === only) : drawing;
  });
  /** In order of arrival, so that a colour stays whose it is. */
  private readonly authors = computed<ReadonlyMap<Id, Author>>(
    () =>
      new Map(
        this.attendance().map((person, i) => [
          person.id,
          { name: nameOf(person), initials: initialsOf(person), colour: colourOfPerson(i) },
        ]),
      ),
  );
  protected readonly authorOf = computed(() => {
    const authors = this.authors();
    return (id: Id): Author | null => authors.get(id) ?? null;
  });
  protected readonly problem = signal<ProblemDetails | null>(null);
  private readonly waitingLate = inject(WaitingLateLines);
  /** Late lines of its students that wait to be looked at. */
  protected readonly lateHere = computed(() =>
    this.waitingLate.list().filter(({ lesson }) => lesson === this.lesson()),
  );
  protected readonly lateCount = computed(() =>
    this.lateHere().reduce((sum, { count }) => sum + count, 0),
  );
  protected readonly lookingAtLate = signal(false);
  /** Whether links to it are made and looked after. */
  protected readonly linking = signal(false);
  protected readonly students = computed(() => [
    ...new Set(this.attendance().flatMap(({ role, name }) => (role === 'student' ? [name] : []))),
  ]);
  /** Whether it is asked as what the record is to be saved. */
  protected readonly saving = signal(false);
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
  protected readonly say = {
    clock: formatClock,
    date: formatDate,
    length: formatLength,
    span: formatSpan,
  };
  protected readonly rows = computed(() =>
    this.attendance().map((person) => ({
      ...person,
      label: nameOf(person),
      total: formatLength(person.spans.reduce((sum, { from, to }) => sum + to - from, 0)),
    })),
  );

  constructor() {
    effect(() => {
      this.lesson();
      untracked(() => void this.load());
    });
    // A replay shows the page on which something happens, or to which the tutor turned, whichever was
    // later; once: then one may look around.
    const happensOn = computed(() => {
      const player = this.player();
      if (!player || this.mode() !== 'replay') return null;
      return shownPage(player.moment(), this.turns(), player.time());
    });
    effect(() => {
      const page = happensOn();
      if (page) untracked(() => this.stage()?.goTo(page));
    });
    inject(DestroyRef).onDestroy(() => {
      this.watching.unsubscribe();
      this.player()?.pause();
      this.papers.close();
    });
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    // What is asked of another lesson isn't this one's.
    this.watching.unsubscribe();
    this.player()?.pause();
    this.player.set(null);
    this.log = null;
    this.mode.set('end');
    this.asked.set('end');
    try {
      const lesson = this.lesson();
      const { record, attendance, ...opened } = await firstValueFrom(
        this.recordsApi.readRecord(lesson),
      );
      this.record.set(record);
      this.attendance.set(attendance);
      this.opened.set(opened);
      this.watchIndexing();
      void this.waitingLate.load();
      const snapshot = unpack(
        await firstValueFrom(this.recordsApi.readRecordBoard(lesson)),
      ) as BoardSnapshot;
      this.board.set(boardFromSnapshot(snapshot));
      // The address names a page, or one begins where the lesson did.
      const page = this.at() ?? opened.statistics?.pages?.[0]?.page;
      if (page) afterNextRender(() => this.stage()?.goTo(page), { injector: this.injector });
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  protected async show(mode: Mode): Promise<void> {
    this.player()?.pause();
    this.asked.set(mode);
    const needsLog = mode === 'before' || mode === 'replay';
    if (needsLog && !this.player()) await this.loadLog();
    if (needsLog && !this.player()) {
      this.asked.set(this.mode());
      return;
    }
    // Something else was asked for meanwhile.
    if (this.asked() !== mode) return;
    this.mode.set(mode);
    if (mode === 'statistics' || mode === 'about') return;
    // In a replay things happen anywhere on the page: all of it is in the window.
    if (mode === 'replay') this.stage()?.fitPage();
    else this.stage()?.fitWidth();
  }

  /** A record is opened at once; what is read off it comes when it is written down. */
  private watchIndexing(): void {
    this.watching.unsubscribe();
    this.watching = timer(ASK_EVERY)
      .pipe(
        // The line may be back by the next time.
        switchMap(() => this.recordsApi.readRecord(this.lesson())),
        retry(),
        tap(({ record, indexing, statistics, goesOn, said }) => {
          this.record.set(record);
          this.opened.set({ indexing, statistics, goesOn, said });
        }),
        repeat(),
        startWith(null),
        takeWhile(() => ['waits', 'goes-on'].includes(this.opened()?.indexing.state ?? '')),
      )
      .subscribe();
  }

  protected async sealAgain(): Promise<void> {
    try {
      const indexing = await firstValueFrom(this.recordsApi.retryIndexing(this.lesson()));
      this.opened.update((opened) => opened && { ...opened, indexing });
      this.watchIndexing();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  protected copied(board: BoardInfo): void {
    this.copying.set(null);
    void this.router.navigate(['/boards', board.id]);
  }

  /** What a film is made of. Throws `ApiError` where that can’t be had just now. */
  protected readonly film = async (): Promise<FilmSource> => {
    await this.fetchLog();
    return {
      ...{ log: this.log!, whole: this.whole(), beside: this.beside(), turns: this.turns() },
      ...{ events: this.events(), people: this.counted() },
    };
  };

  /** How the lesson came about is fetched when somebody wants to see it. */
  private async loadLog(): Promise<void> {
    if (!this.record()) return;
    this.problem.set(null);
    try {
      await this.fetchLog();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  private async fetchLog(): Promise<void> {
    if (this.player()) return;
    const { bytes, before, replay, timeline } = await loadLessonLog(this.recordsApi, this.lesson());
    this.log = bytes;
    this.before.set(before);
    this.events.set(replay.events);
    this.timeline.set(timeline);
    this.player.set(new Player(replay, this.whole(), [...replay.events, ...this.beside()]));
  }
}
