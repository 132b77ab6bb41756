import { sendsNothing, teaches } from '@cuaderno/core';
import type {
  ClientMessage,
  IceCandidate,
  Id,
  Microphone,
  SessionDescription,
} from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
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
    window.tell({ kind: 'media.begin', window: window.id, servers });
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
  private mute(
    from: LiveConnection,
    who: Extract<ClientMessage, { kind: 'media.mute' }>['who'],
  ): void {
    const { lesson } = from;
    if (!lesson) return;
    if (!this.switches.take(from)) return from.refuse('media-too-many');
    const isMeant = ({ person, role }: LiveConnection): boolean => {
      // One who helps mutes neither the tutor nor another who helps.
      if (teaches(role) && from.role !== 'tutor') return false;
      if (who !== 'all' && who !== 'all-but-lead') return person === who;
      return !teaches(role) && (who === 'all' || person !== lesson.lead);
    };
    for (const window of this.classroom.windows(lesson)) {
      if (!isMeant(window) || this.microphones.get(window) !== 'on') continue;
      this.microphones.set(window, 'muted');
      window.tell({ kind: 'media.mute', by: from.person });
    }
    this.tell(lesson);
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
