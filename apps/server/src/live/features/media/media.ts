import { sendsNothing, teaches } from '@cuaderno/core';
import type {
  ClientMessage,
  IceCandidate,
  Id,
  Microphone,
  Muted,
  SessionDescription,
} from '@cuaderno/core';
import type { LiveLesson, Participant } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import { WindowAllowances } from '../../window-allowances.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';
import type { IceServers } from './ice-servers.js';

/**
 * What a window may tell others of how it is reached: so many a second on the whole, and so many at once. Who comes into a
 * lesson of nine describes themselves to eight, and each machine has some ten addresses.
 */
const DESCRIPTIONS = [4, 60] as const;
const CANDIDATES = [20, 400] as const;
/** How often a window may switch its microphone, and how often one who teaches may mute and ask. */
const SWITCHES = [4, 40] as const;

type MutedWho = Extract<ClientMessage, { kind: 'media.mute' }>['who'];

/** Voices go from window to window: here is only what windows need to find one another, and who is heard. */
export class Media implements LiveFeature<'media'> {
  readonly handlers: ClientHandlers<'media'> = {
    'media.describe': (window, { description }, to) => this.describe(window, description, to),
    'media.candidate': (window, { candidate }, to) => this.reach(window, candidate, to),
    'media.microphone': (window, { microphone }) => this.setMicrophone(window, microphone),
    'media.mute': (window, { who }) => this.mute(window, who),
    'media.ask': (window, { who }) => this.ask(window, who),
  };

  private readonly descriptions = new WindowAllowances(...DESCRIPTIONS);
  private readonly candidates = new WindowAllowances(...CANDIDATES);
  private readonly switches = new WindowAllowances(...SWITCHES);
  private readonly microphones = new WeakMap<LiveConnection, Microphone>();
  private readonly muted = new WeakMap<LiveLesson, Map<Id, Muted>>();

  constructor(
    private readonly classroom: Classroom,
    private readonly servers: IceServers,
  ) {}

  restore(): void {
    // Windows say what their microphones are as they come back.
  }

  sendSnapshot(window: LiveConnection): void {
    const { lesson } = window;
    if (!lesson) return;
    const servers = this.servers.for(window.person);
    const muted = this.mutedOf(lesson).get(window.person) ?? { times: 0, by: null };
    const speaks = window.role !== 'watcher';
    window.tell({ kind: 'media.begin', window: window.id, servers, speaks, muted });
    this.tell(lesson);
  }

  /** A window has gone: the others play nothing of it any more. */
  leave({ lesson }: LiveConnection): void {
    if (lesson) this.tell(lesson);
  }

  /** Who watches is sent voices and sends none. */
  private describe(
    from: LiveConnection,
    description: SessionDescription,
    to: LiveConnection,
  ): void {
    if (!this.descriptions.take(from)) return from.refuse('media-too-many');
    if (from.role === 'watcher' && !sendsNothing(description.sdp))
      return from.refuse('watches-only');
    to.tell({ kind: 'media.describe', from: from.id, description });
  }

  private reach(from: LiveConnection, candidate: IceCandidate, to: LiveConnection): void {
    if (!this.candidates.take(from)) return from.refuse('media-too-many');
    to.tell({ kind: 'media.candidate', from: from.id, candidate });
  }

  private setMicrophone(window: LiveConnection, microphone: Microphone): void {
    if (!window.lesson || (this.microphones.get(window) ?? 'off') === microphone) return;
    if (!this.switches.take(window)) return window.refuse('media-too-many');
    this.microphones.set(window, microphone);
    this.tell(window.lesson);
  }

  /** Windows play nothing of one whose microphone isn't on: whoever is muted is heard by nobody, whatever their browser does. */
  private mute(from: LiveConnection, who: MutedWho): void {
    const { lesson } = from;
    if (!lesson) return;
    if (!this.switches.take(from)) return from.refuse('media-too-many');
    const muted = this.mutedOf(lesson);
    const meant = new Set<Id>();
    // Whoever's line is away this moment, too: they come back muted.
    for (const { id, role } of this.meantBy(who, lesson)) {
      // One who helps mutes neither the tutor nor another who helps.
      if (teaches(role) && from.role !== 'tutor') continue;
      meant.add(id);
      muted.set(id, { times: (muted.get(id)?.times ?? 0) + 1, by: from.person });
    }
    for (const window of this.classroom.windows(lesson)) {
      if (!meant.has(window.person)) continue;
      if (this.microphones.get(window) === 'on') this.microphones.set(window, 'muted');
      window.tell({ kind: 'media.mute', muted: muted.get(window.person)! });
    }
    this.tell(lesson);
  }

  private meantBy(who: MutedWho, lesson: LiveLesson): readonly Participant[] {
    if (who === 'all') return lesson.students();
    if (who === 'all-but-lead') return lesson.students().filter(({ id }) => id !== lesson.lead);
    const one = lesson.person(who);
    return one ? [one] : [];
  }

  private mutedOf(lesson: LiveLesson): Map<Id, Muted> {
    const known = this.muted.get(lesson) ?? new Map<Id, Muted>();
    this.muted.set(lesson, known);
    return known;
  }

  private ask(from: LiveConnection, who: Id): void {
    const { lesson } = from;
    if (!lesson) return;
    if (!this.switches.take(from)) return from.refuse('media-too-many');
    for (const window of this.classroom.windows(lesson))
      if (window.person === who && window.role !== 'watcher')
        window.tell({ kind: 'media.ask', by: from.person });
  }

  private tell(lesson: LiveLesson): void {
    const windows = [...this.classroom.windows(lesson)].map((window) => ({
      id: window.id,
      person: window.person,
      microphone: this.microphones.get(window) ?? 'off',
    }));
    for (const window of this.classroom.windows(lesson))
      window.tell({ kind: 'media.windows', windows });
  }
}
