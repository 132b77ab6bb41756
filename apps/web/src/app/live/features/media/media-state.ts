import { computed, signal } from '@angular/core';
import type {
  IceServer,
  MediaWindow,
  Microphone,
  Muted,
  Person,
  ServerMessageOf,
} from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Subscription } from 'rxjs';
import { interval } from 'rxjs';
import type { LessonFeature, Send, ServerHandlers, Stand } from '../feature';
import type { MediaPath } from './media-path';
import { Mesh } from './mesh';
import { OwnMicrophone } from './own-microphone';
import { keepMicrophone, microphoneIn } from './sound-choice';
import { Speaking } from './speaking';
import { VoicePlayer } from './voice-player';

/** How often it is looked who speaks, in ms. */
const LOOK = 250;
/** Whether somebody is heard, by all their windows. */
export type Voice = 'on' | 'muted';

type Begin = Extract<ServerMessageOf<'media'>, { kind: 'media.begin' }>;

/** Makes a way for voices; a spec has one of its own. */
type MakePath = (window: Id, servers: readonly IceServer[], send: Send) => MediaPath;

/** Voices: one's own, and those that are heard here. */
export class MediaState implements LessonFeature<'media'> {
  readonly microphone = new OwnMicrophone(() => this.ownChanged());
  /** What this window's own microphone is. */
  readonly own = this.microphone.state;
  /** Why there is no voice of this window, or it hears none. */
  readonly fault = this.microphone.fault;
  /** Who would like to hear who is at this window. */
  readonly askedBy = signal<Id | null>(null);
  /** Who muted this window. */
  readonly mutedBy = signal<Id | null>(null);
  /** Who has a microphone that isn't off. */
  readonly voices = computed<ReadonlyMap<Id, Voice>>(() => {
    const on = this.windows().filter(({ microphone }) => microphone === 'on');
    const muted = this.windows().filter(({ microphone }) => microphone === 'muted');
    return new Map([
      ...muted.map(({ person }) => [person, 'muted'] as const),
      ...on.map(({ person }) => [person, 'on'] as const),
    ]);
  });
  readonly player = new VoicePlayer();
  private readonly speakers = new Speaking();
  /** Who speaks this moment. */
  readonly speaking = this.speakers.now.asReadonly();

  readonly handlers: ServerHandlers<'media'> = {
    'media.begin': (message) => this.enter(message),
    'media.windows': ({ windows }) => {
      this.windows.set(windows);
      this.connect();
      // Told once, when there is something to be missed.
      if (!this.isAble() && !this.isTold && this.others('on').length > 0) this.tellUnable();
    },
    'media.describe': ({ from, description }) =>
      this.path?.hear(from, { kind: 'media.describe', description }),
    'media.candidate': ({ from, candidate }) =>
      this.path?.hear(from, { kind: 'media.candidate', candidate }),
    'media.mute': ({ muted }) => this.mutedByOther(muted),
    'media.ask': ({ by }) => {
      if (this.own() === 'on') return;
      this.askedBy.set(by);
      // Whoever is asked to speak needn't be told any more that they were muted.
      this.mutedBy.set(null);
    },
  };

  private readonly windows = signal<readonly MediaWindow[]>([]);
  private me: Id | null = null;
  private path: MediaPath | null = null;
  /** How often this person was muted in the lesson, as far as this window knows; `null` before it was told. */
  private mutedTimes: number | null = null;
  private lesson: Id | null = null;
  private isTold = false;
  private looking: Subscription | null = null;

  constructor(
    private readonly send: Send,
    private readonly stand: Stand,
    private readonly people: () => readonly Person[],
    /** Some browsers are built without what carries voices. */
    private readonly isAble = (): boolean => 'RTCPeerConnection' in globalThis,
    private readonly makePath: MakePath = (window, servers, send) =>
      new Mesh(window, servers, (message) => void send(message)),
  ) {}

  begin(lesson: Id | null): void {
    // The line is new, and so is this window's id: it comes next.
    this.lesson = lesson;
  }

  clear(): void {
    this.leave();
    if (this.lesson) keepMicrophone(this.lesson, 'off');
    this.lesson = null;
  }

  /** Nothing is heard, and nothing goes out. In this lesson it goes on as it was, where this tab comes back. */
  leave(): void {
    this.path?.close();
    this.path = null;
    this.me = null;
    this.isTold = false;
    this.mutedTimes = null;
    this.windows.set([]);
    this.player.play(new Map(), new Set());
    this.microphone.release();
    this.watch();
    for (const told of [this.askedBy, this.mutedBy]) told.set(null);
  }

  /** One touch: on, or muted. The first one asks the browser for the microphone. */
  async toggle(): Promise<void> {
    if (!this.isAble()) return this.tellUnable();
    if (!this.path) return;
    this.askedBy.set(null);
    this.mutedBy.set(null);
    if (this.own() === 'on') return this.microphone.set('muted');
    await this.microphone.open('on');
  }

  /** Mutes somebody, or all students, or those of them who don't lead. */
  mute(who: Id | 'all' | 'all-but-lead'): void {
    this.stand({ kind: 'media.mute', who }, () => {
      const isAll = who === 'all' || who === 'all-but-lead';
      const on = this.people().filter(
        ({ id, role }) =>
          (isAll ? role === 'student' : id === who) && this.voices().get(id) === 'on',
      );
      // Who leads may be on.
      return on.length <= (who === 'all-but-lead' ? 1 : 0);
    });
  }

  /** Asks somebody to switch on. */
  ask(who: Id): void {
    this.stand({ kind: 'media.ask', who }, () => this.voices().get(who) === 'on');
  }

  private enter({ window, servers, speaks, muted }: Begin): void {
    this.path?.close();
    const isFirst = this.me === null;
    this.me = window;
    if (!this.isAble()) return;
    this.path = this.makePath(window, servers, this.send);
    // Somebody muted this person while the line was away, as far as a server knows that was stopped meanwhile.
    if (this.mutedTimes !== null && muted.times > this.mutedTimes) this.mutedByOther(muted);
    this.mutedTimes = muted.times;
    if (this.own() !== 'off') this.send({ kind: 'media.microphone', microphone: this.own() });
    if (this.microphone.track) this.path.sendVoice(this.microphone.track);
    const wished = isFirst && speaks && this.lesson ? microphoneIn(this.lesson) : 'off';
    if (this.own() === 'off' && wished !== 'off') void this.microphone.open(wished);
  }

  private mutedByOther({ times, by }: Muted): void {
    this.mutedTimes = times;
    if (this.own() !== 'on') return;
    this.microphone.set('muted');
    this.mutedBy.set(by);
  }

  /** Another track, or another state: the others hear that, or nothing. */
  private ownChanged(): void {
    const microphone = this.own();
    this.path?.sendVoice(this.microphone.track);
    if (!this.path) return;
    this.send({ kind: 'media.microphone', microphone });
    if (this.lesson) keepMicrophone(this.lesson, microphone);
  }

  /** Windows of one's own aren't heard: one voice would be in the room twice. */
  private connect(): void {
    this.path?.connect(this.others().map(({ id }) => id));
    this.play();
    this.watch();
  }

  /** Windows of others: all, or those whose microphone is this. */
  private others(is?: Microphone): readonly MediaWindow[] {
    const mine = this.windows().find(({ id }) => id === this.me);
    if (!mine) return [];
    return this.windows().filter(
      ({ person, microphone }) => person !== mine.person && (!is || microphone === is),
    );
  }

  private tellUnable(): void {
    this.isTold = true;
    this.fault.set('unable');
  }

  /**
   * Of somebody with several windows one plays: that with the microphone on, else muted, else the one that came last. Two
   * loudspeakers a moment apart can't be listened to.
   */
  private plays(): boolean {
    const all = this.windows();
    const me = all.find(({ id }) => id === this.me)?.person;
    const mine = all.filter(({ person }) => person === me).reverse();
    const one = (is: Microphone): MediaWindow | undefined =>
      mine.find(({ microphone }) => microphone === is);
    return (one('on') ?? one('muted') ?? mine[0])?.id === this.me;
  }

  private play(): void {
    const heard = this.plays()
      ? this.windows().filter(({ microphone }) => microphone === 'on')
      : [];
    this.player.play(this.path?.received() ?? new Map(), new Set(heard.map(({ id }) => id)));
  }

  /** Only while anybody can be heard. */
  private watch(): void {
    const isHeard = this.windows().some(({ microphone }) => microphone === 'on');
    if (isHeard) return void (this.looking ??= interval(LOOK).subscribe(() => this.look()));
    this.looking?.unsubscribe();
    this.looking = null;
    this.look();
  }

  /** Who speaks; and what has come meanwhile is played. */
  private look(): void {
    this.play();
    const levels = new Map<Id, number>();
    for (const { id, person, microphone } of this.windows()) {
      if (microphone !== 'on') continue;
      const level = id === this.me ? this.microphone.loudness : (this.path?.levelOf(id) ?? 0);
      levels.set(person, Math.max(level, levels.get(person) ?? 0));
    }
    this.speakers.look(levels);
  }
}
