import { boardFromSnapshot, pagesInOrder } from '@cuaderno/core/board';
import type { Board, BoardSnapshot } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import { NOTHING_BESIDE } from '@cuaderno/core/features';
import type { RecordTimeline } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { colourOfPerson } from '@cuaderno/core/ink';
import { initialsOf, nameOf } from '@cuaderno/core/people';
import { lanesOf, penDown } from '@cuaderno/core/replay';
import type { ReplayEvent } from '@cuaderno/core/replay';
import { unpack } from '@cuaderno/core/wire';
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
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
import { Attempt } from '../../api/attempt';
import { RecordsApi } from '../../api/records-api';
import type { Attendance, RecordInfo, RecordOpened } from '../../api/shapes';
import type { FilmSource } from '../film/film-source';
import { happeningsOf } from '../replay/happenings';
import { loadLessonLog } from '../replay/lesson-log';
import type { Lane } from '../replay/lesson-timeline';
import { Player } from '../replay/player';

/** How often it is asked how far a record is written down, in ms. */
const ASK_EVERY = 700;

type Opened = Pick<RecordOpened, 'indexing' | 'statistics' | 'boards' | 'said'>;

/**
 * The record that a screen shows: what the lesson left, who was there, and, once somebody asks, how it came about.
 * Provided by that screen; it goes with it.
 */
@Injectable()
export class OpenRecord {
  private readonly recordsApi = inject(RecordsApi);
  private lesson: Id = '';
  private watching = Subscription.EMPTY;
  /** How it came about, as it came. */
  private log: Uint8Array | null = null;
  private readonly events = signal<readonly ReplayEvent[]>([]);

  readonly info = signal<RecordInfo | null>(null);
  readonly attendance = signal<readonly Attendance[]>([]);
  /** The board as the lesson left it. */
  readonly board = signal<Board | null>(null);
  /** The board when the lesson opened; known with how it came about. */
  readonly before = signal<Board | null>(null);
  readonly opened = signal<Opened | null>(null);
  readonly player = signal<Player | null>(null);
  readonly timeline = signal<RecordTimeline>(NOTHING_BESIDE);
  readonly attempt = new Attempt();

  /** From the opening of the lesson to its close, in ms since 1970. */
  readonly whole = computed(() => {
    const info = this.info();
    return { from: info?.openedAt ?? 0, to: info?.closedAt ?? 0 };
  });
  /** Pages to which the tutor turned, in the order of time. */
  readonly turns = computed(() => {
    const tutor = this.attendance().find(({ role }) => role === 'tutor')?.id;
    return this.timeline().turns.filter(({ by }) => by === tutor);
  });
  /** Who was there, in order of arrival, so that a colour stays whose it is. */
  readonly people = computed(() =>
    this.attendance().map((person, i) => ({
      ...person,
      label: nameOf(person),
      colour: colourOfPerson(i),
    })),
  );
  readonly authors = computed<ReadonlyMap<Id, Author>>(
    () =>
      new Map(
        this.attendance().map((person, i) => [
          person.id,
          { name: nameOf(person), initials: initialsOf(person), colour: colourOfPerson(i) },
        ]),
      ),
  );
  readonly lanes = computed<readonly Lane[]>(() => {
    const [stretches, down] = [lanesOf(this.events()), penDown(this.events())];
    return this.people().map(({ id, label, colour }) => ({
      ...{ id, label, colour },
      stretches: stretches.get(id) ?? [],
      penDown: down.get(id) ?? 0,
    }));
  });
  readonly happenings = computed(() => {
    const board = this.board();
    const numbers = new Map(board ? pagesInOrder(board).map(({ id }, i) => [id, i + 1]) : []);
    return happeningsOf(this.timeline(), this.attendance(), (page) => numbers.get(page) ?? null);
  });
  /** When something happened beside the pages. */
  private readonly beside = computed(() =>
    this.happenings().map(({ at }) => ({ from: at, to: at })),
  );

  constructor() {
    inject(DestroyRef).onDestroy(() => this.leave());
  }

  /** Shows the record of a lesson, in place of another. Resolves with whether it is there. */
  open(lesson: Id): Promise<boolean> {
    // What is asked of another lesson isn't this one's.
    this.leave();
    if (lesson !== this.lesson) {
      this.info.set(null);
      this.board.set(null);
      this.opened.set(null);
    }
    this.lesson = lesson;
    this.player.set(null);
    this.log = null;
    return this.attempt.make(async () => {
      const { record, attendance, ...opened } = await firstValueFrom(
        this.recordsApi.readRecord(lesson),
      );
      // Another record may have been opened meanwhile: what is answered late is dropped.
      if (lesson !== this.lesson) return;
      this.info.set(record);
      this.attendance.set(attendance);
      this.opened.set(opened);
      this.watchIndexing();
      const snapshot = unpack(await firstValueFrom(this.recordsApi.readRecordBoard(lesson)));
      if (lesson === this.lesson) this.board.set(boardFromSnapshot(snapshot as BoardSnapshot));
    });
  }

  /** Has what is read off the record written down once more. */
  async writeDownAgain(): Promise<void> {
    await this.attempt.make(async () => {
      const indexing = await firstValueFrom(this.recordsApi.retryIndexing(this.lesson));
      this.opened.update((opened) => opened && { ...opened, indexing });
      this.watchIndexing();
    });
  }

  /** How the lesson came about is fetched when somebody wants to see it. Resolves with whether it is there. */
  async loadReplay(): Promise<boolean> {
    if (!this.info()) return false;
    return this.player() !== null || this.attempt.make(() => this.fetchLog());
  }

  /** What a film is made of. Throws `ApiError` where that can’t be had just now. */
  async film(): Promise<FilmSource> {
    await this.fetchLog();
    return {
      ...{ log: this.log!, whole: this.whole(), beside: this.beside(), turns: this.turns() },
      ...{ events: this.events(), people: this.people() },
    };
  }

  private async fetchLog(): Promise<void> {
    if (this.player()) return;
    const { lesson } = this;
    const { bytes, before, replay, timeline } = await loadLessonLog(this.recordsApi, lesson);
    if (lesson !== this.lesson) return;
    this.log = bytes;
    this.before.set(before);
    this.events.set(replay.events);
    this.timeline.set(timeline);
    this.player.set(new Player(replay, this.whole(), [...replay.events, ...this.beside()]));
  }

  /** A record is opened at once; what is read off it comes when it is written down. */
  private watchIndexing(): void {
    this.watching.unsubscribe();
    this.watching = timer(ASK_EVERY)
      .pipe(
        // The line may be back by the next time.
        switchMap(() => this.recordsApi.readRecord(this.lesson)),
        retry(),
        tap(({ record, indexing, statistics, boards, said }) => {
          this.info.set(record);
          this.opened.set({ indexing, statistics, boards, said });
        }),
        repeat(),
        startWith(null),
        takeWhile(() => ['waits', 'goes-on'].includes(this.opened()?.indexing.state ?? '')),
      )
      .subscribe();
  }

  private leave(): void {
    this.watching.unsubscribe();
    this.player()?.pause();
  }
}
