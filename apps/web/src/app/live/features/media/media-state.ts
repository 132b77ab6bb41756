import { computed, signal } from '@angular/core';
import type { IceServer, MediaWindow, Microphone } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Subscription } from 'rxjs';
import { interval } from 'rxjs';
import type { LessonFeature, Send, ServerHandlers } from '../feature';
import type { MediaPath } from './media-path';
import { Mesh } from './mesh';
import { openMicrophone } from './microphone-input';
import type { MicrophoneFault } from './microphone-input';
import { VoiceLevel } from './voice-level';
import { VoicePlayer } from './voice-player';

/** How often it is looked who speaks, in ms. */
const LOOK = 250;
/** From here on it is a voice and not the room: -40 dB of full scale. Common practice, no source. */
const VOICE = 0.01;
/** How long somebody still speaks who draws breath, in ms. Common practice, no source. */
const BREATH = 1000;

/** Whether somebody is heard, by all their windows. */
export type Voice = 'on' | 'muted';

/** Makes a way for voices; a spec has one of its own. */
type MakePath = (window: Id, servers: readonly IceServer[], send: Send) => MediaPath;

/** Voices: one's own, and those that are heard here. */
export class MediaState implements LessonFeature<'media'> {
  /** What this window's own microphone is. */
  readonly own = signal<Microphone>('off');
  /** Whether the browser is being asked for the microphone. */
  readonly isOpening = signal(false);
  /** Why there is no voice of this window. */
  readonly fault = signal<MicrophoneFault | null>(null);
  /** Who would like to hear who is at this window. */
  readonly askedBy = signal<Id | null>(null);
  /** Who muted this window. */
  readonly mutedBy = signal<Id | null>(null);
  /** Who speaks this moment. */
  readonly speaking = signal<ReadonlySet<Id>>(new Set());
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

  readonly handlers: ServerHandlers<'media'> = {
    'media.begin': ({ window, servers }) => this.enter(window, servers),
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
    'media.mute': ({ by }) => {
      if (this.own() !== 'on') return;
      this.set('muted');
      this.mutedBy.set(by);
    },
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
  private track: MediaStreamTrack | null = null;
  private level: VoiceLevel | null = null;
  /** When somebody was heard last, by the clock of the page. */
  private readonly spoke = new Map<Id, number>();
  private isTold = false;
  private looking: Subscription | null = null;

  constructor(
    private readonly send: Send,
    /** Some browsers are built without what carries voices. */
    private readonly isAble = (): boolean => 'RTCPeerConnection' in globalThis,
    private readonly makePath: MakePath = (window, servers, send) =>
      new Mesh(window, servers, (message) => void send(message)),
  ) {}

  begin(): void {
    // The line is new, and so is this window's id: it comes next.
  }

  /** The lesson is over, or this window isn't in it any more: nothing is heard, and nothing goes out. */
  clear(): void {
    this.path?.close();
    this.path = null;
    this.isTold = false;
    this.windows.set([]);
    this.player.play(new Map(), new Set());
    this.release();
    this.own.set('off');
    for (const told of [this.fault, this.askedBy, this.mutedBy]) told.set(null);
  }

  /** One touch: on, or muted. The first one asks the browser for the microphone. */
  async toggle(): Promise<void> {
    if (!this.isAble()) return this.tellUnable();
    if (!this.path) return;
    this.askedBy.set(null);
    this.mutedBy.set(null);
    if (this.own() === 'on') return this.set('muted');
    if (this.track) return this.set('on');
    if (this.isOpening()) return;
    this.isOpening.set(true);
    this.fault.set(null);
    try {
      const opened = await openMicrophone();
      if (typeof opened === 'string') return this.fault.set(opened);
      // The lesson may have ended meanwhile.
      if (!this.path) return opened.stop();
      this.take(opened);
    } finally {
      this.isOpening.set(false);
    }
  }

  /** Mutes somebody, or all students, or those of them who don't lead. */
  mute(who: Id | 'all' | 'all-but-lead'): void {
    this.send({ kind: 'media.mute', who });
  }

  /** Asks somebody to switch on. */
  ask(who: Id): void {
    this.send({ kind: 'media.ask', who });
  }

  private enter(window: Id, servers: readonly IceServer[]): void {
    this.path?.close();
    this.me = window;
    if (!this.isAble()) return;
    this.path = this.makePath(window, servers, this.send);
    if (this.own() !== 'off') this.send({ kind: 'media.microphone', microphone: this.own() });
    if (this.track) this.path.sendVoice(this.track);
    this.looking ??= interval(LOOK).subscribe(() => this.look());
  }

  /** Windows of one's own aren't heard: one voice would be in the room twice. */
  private connect(): void {
    this.path?.connect(this.others().map(({ id }) => id));
    this.play();
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

  /** Who speaks; and what has come meanwhile is played. */
  private look(): void {
    this.play();
    const speak = this.windows().filter(
      ({ id, microphone }) =>
        microphone === 'on' &&
        (id === this.me ? (this.level?.now ?? 0) : (this.path?.levelOf(id) ?? 0)) > VOICE,
    );
    const at = performance.now();
    for (const { person } of speak) this.spoke.set(person, at);
    for (const [person, when] of this.spoke)
      if (at - when > BREATH || this.voices().get(person) !== 'on') this.spoke.delete(person);
    const before = this.speaking();
    const now = new Set(this.spoke.keys());
    if (now.size !== before.size || [...now].some((person) => !before.has(person)))
      this.speaking.set(now);
  }

  private take(track: MediaStreamTrack): void {
    this.track = track;
    this.level = new VoiceLevel(track);
    // Pulled out, or no longer allowed.
    track.onended = () => {
      this.release();
      this.path?.sendVoice(null);
      this.fault.set('gone');
      this.set('off');
    };
    this.set('on');
    this.path?.sendVoice(track);
  }

  private set(microphone: Microphone): void {
    this.own.set(microphone);
    if (this.track) this.track.enabled = microphone === 'on';
    this.send({ kind: 'media.microphone', microphone });
  }

  private release(): void {
    this.track?.stop();
    this.track = null;
    this.level?.close();
    this.level = null;
    if (this.path) return;
    this.looking?.unsubscribe();
    this.looking = null;
    this.spoke.clear();
    this.speaking.set(new Set());
  }
}
