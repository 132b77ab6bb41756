import { signal } from '@angular/core';
import { newId } from '@cuaderno/core';
import type {
  Arrival,
  ChatLine,
  ChatTo,
  ClientMessage,
  DoorWord,
  Id,
  Lamp,
  Machine,
  Person,
  Place,
  Rules,
  RulesOver,
  ServerMessage,
  Shown,
  Signal,
  Trust,
  View,
  WindowSize,
} from '@cuaderno/core';
import { Subject } from 'rxjs';

const NOTHING: Shown = { arrows: [], lamp: null };

/** Where somebody points just now; `null` where they no longer do. */
export interface Pointed {
  readonly by: Id;
  readonly at: Place | null;
}

/**
 * The lesson on a board, as this window knows it: who is here and what they may do, hands and messages, who
 * leads, what is pointed at. All of it is the server's to say; here it is kept, and asked for.
 */
export class LessonRoom {
  readonly lesson = signal<{ id: Id; openedAt: number } | null>(null);
  /** How far the server’s clock is ahead of this machine’s, in ms: one of them may be wrong by a day. */
  readonly ahead = signal(0);
  readonly people = signal<readonly Person[]>([]);
  /** Who is at the door and who was sent out, for the tutor. */
  readonly arrivals = signal<readonly Arrival[]>([]);
  /** What holds for the class where nothing else is said for one of it. */
  readonly rules = signal<Rules>({});
  /** The student who leads; `null` while the tutor does. */
  readonly lead = signal<Id | null>(null);
  /** When the lesson is to end, in ms since 1970, if that was planned. */
  readonly endsAt = signal<number | null>(null);
  /** Whether windows follow that of the one who leads, and what that showed last. */
  readonly inStep = signal(false);
  readonly led = signal<View | null>(null);
  /** All are brought to one place, once. */
  readonly gathered = new Subject<View>();
  readonly chat = signal<readonly ChatLine[]>([]);
  /** Arrows and the lamp. */
  readonly shown = signal<Shown>(NOTHING);
  readonly pointed = new Subject<Pointed>();
  /** Goes up when what students may look at has changed. */
  readonly materials = signal(0);
  /** Goes up when late lines have come, or it was decided about them. */
  readonly late = signal(0);
  /** Goes up when something was handed over, fetched or taken back. */
  readonly handed = signal(0);

  /** @param send hands a message to the network; returns whether it could be */
  constructor(private readonly send: (message: ClientMessage) => boolean) {}

  begin(lesson: { id: Id; openedAt: number } | null): void {
    this.lesson.set(lesson);
    // What was put out while the line was away isn't told: what still stands is.
    this.shown.set(NOTHING);
    if (!lesson) this.clear();
  }

  over(): void {
    this.lesson.set(null);
    this.clear();
  }

  take(message: ServerMessage): void {
    switch (message.kind) {
      case 'people':
        return this.people.set(message.people);
      case 'door':
        return this.arrivals.set(message.arrivals);
      case 'lesson':
        return this.begin(message.lesson);
      case 'class':
        this.rules.set(message.rules);
        this.lead.set(message.lead);
        this.endsAt.set(message.endsAt);
        return;
      case 'step':
        this.inStep.set(message.on);
        if (!message.on) this.led.set(null);
        return;
      case 'view':
        if (message.once) this.gathered.next(message.view);
        else this.led.set(message.view);
        return;
      case 'chat': {
        const known = new Set(this.chat().map(({ id }) => id));
        const fresh = message.lines.filter(({ id }) => !known.has(id));
        this.chat.update((lines) => [...lines, ...fresh].sort((a, b) => a.at - b.at));
        return;
      }
      case 'chat.empty':
        return this.chat.set([]);
      case 'shown':
        return this.shown.set(message.shown);
      case 'point':
        return this.pointed.next({ by: message.by, at: message.at });
      case 'materials':
        return this.materials.update((n) => n + 1);
      case 'handed':
        return this.handed.update((n) => n + 1);
      case 'late':
        return this.late.update((n) => n + 1);
    }
  }

  setTrust(who: Id | 'all', trust: Trust): void {
    this.send({ kind: 'trust', who, trust });
  }

  /** Says what else someone may do, or the class; `null` unsays it. */
  say(who: Id | 'all', over: RulesOver): void {
    this.send({ kind: 'rules', who, over });
  }

  /** Hands over the lead; `null` takes it back. */
  handLead(who: Id | null): void {
    this.send({ kind: 'lead', who });
  }

  plan(endsAt: number | null): void {
    this.send({ kind: 'plan', endsAt });
  }

  raise(up: boolean): void {
    this.send({ kind: 'hand', up });
  }

  lower(who: Id | 'all'): void {
    this.send({ kind: 'lower', who });
  }

  signal(signal: Signal | null): void {
    this.send({ kind: 'signal', signal });
  }

  clearSignals(): void {
    this.send({ kind: 'signals.clear' });
  }

  /** Returns whether it is on its way: it is in the chat when it comes back. */
  write(to: ChatTo, text: string): boolean {
    return this.send({ kind: 'chat', id: newId(), to, text });
  }

  emptyChat(): void {
    this.send({ kind: 'chat.empty' });
  }

  point(at: Place | null): void {
    this.send({ kind: 'point', at });
  }

  leaveArrow(at: Place | null): void {
    this.send({ kind: 'arrow', at });
  }

  clearArrows(): void {
    this.send({ kind: 'arrows.clear' });
  }

  /** @param rest whether it stays so for now */
  light(lamp: Lamp | null, rest: boolean): void {
    this.shown.update((shown) => ({ ...shown, lamp }));
    this.send({ kind: 'lamp', lamp, rest });
  }

  setStep(on: boolean): void {
    this.send({ kind: 'step', on });
  }

  /** @param rest whether this is where the window stays for now */
  sendView(view: View, rest: boolean): void {
    this.send({ kind: 'view', view, rest });
  }

  gather(view: View): void {
    this.send({ kind: 'gather', view });
  }

  /** What this window shows, for the tutor to know. */
  showWindow(machine: Machine, size: WindowSize, view: View): void {
    this.send({ kind: 'window', machine, size, view });
  }

  /** The tutor's word to someone at the door, or in the lesson. */
  atDoor(who: Id | 'all', word: DoorWord): void {
    this.send({ kind: 'door', who, word });
  }

  private clear(): void {
    this.people.set([]);
    this.arrivals.set([]);
    this.rules.set({});
    this.lead.set(null);
    this.endsAt.set(null);
    this.inStep.set(false);
    this.led.set(null);
    this.chat.set([]);
    this.shown.set(NOTHING);
  }
}
