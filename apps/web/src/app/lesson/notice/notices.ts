import { effect, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import { lasting, remember } from '../../browser/storage';
import { Passing } from '../../ui/time/passing';
import { knock } from './sounds';

/** What a tutor is given notice of. */
export type NoticeKind = 'door' | 'hand' | 'message' | 'left' | 'end';
/** How: a sound, a line on screen, and a notification of the browser while its window is behind. */
export type NoticeWay = 'sound' | 'sight' | 'behind';

export type NoticeChoice = Record<NoticeKind, Record<NoticeWay, boolean>>;

export const NOTICE_KINDS: readonly { kind: NoticeKind; label: string }[] = [
  { kind: 'door', label: 'Someone is at the door' },
  { kind: 'hand', label: 'A hand is up' },
  { kind: 'message', label: 'A message' },
  { kind: 'left', label: 'Someone has left' },
  { kind: 'end', label: 'Five minutes to go' },
];
export const NOTICE_WAYS: readonly { way: NoticeWay; label: string }[] = [
  { way: 'sound', label: 'Sound' },
  { way: 'sight', label: 'On screen' },
  { way: 'behind', label: 'When another window is in front' },
];

const KEY = 'cuaderno.notices';
const USUAL: NoticeChoice = {
  door: { sound: true, sight: true, behind: true },
  hand: { sound: true, sight: true, behind: false },
  message: { sound: false, sight: true, behind: false },
  left: { sound: false, sight: true, behind: false },
  end: { sound: false, sight: true, behind: true },
};
/** How long a line stays on screen, in ms. */
const SHOWN = 8000;

/** Anything may lie there: what isn't a wish is as it is usually. */
const Kept = z.record(z.string(), z.record(z.string(), z.unknown()).catch({})).catch({});

function kept(): NoticeChoice {
  const before = Kept.parse(parsed(lasting.getItem(KEY)));
  const wish = (kind: NoticeKind, way: NoticeWay): boolean => {
    const said = before[kind]?.[way];
    return typeof said === 'boolean' ? said : USUAL[kind][way];
  };
  const of = (kind: NoticeKind): NoticeChoice[NoticeKind] => ({
    ...{ sound: wish(kind, 'sound'), sight: wish(kind, 'sight'), behind: wish(kind, 'behind') },
  });
  const kinds = Object.keys(USUAL) as NoticeKind[];
  return Object.fromEntries(kinds.map((kind) => [kind, of(kind)])) as NoticeChoice;
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? '{}');
  } catch {
    return {};
  }
}

/** Gives notice, in the ways that this tutor wishes. They stay as they were left, on this machine. */
@Injectable({ providedIn: 'root' })
export class Notices {
  readonly wishes = signal<NoticeChoice>(kept());
  /** What is said on screen just now. */
  private readonly said = new Passing<string>(SHOWN);
  readonly line = this.said.now;
  private lineOf: NoticeKind | null = null;

  constructor() {
    effect(() => remember(lasting, KEY, JSON.stringify(this.wishes())));
  }

  /** Sets one wish. Notifications of the browser are asked for when they are first wished. */
  wish(kind: NoticeKind, way: NoticeWay, on: boolean): void {
    this.wishes.update((all) => ({ ...all, [kind]: { ...all[kind], [way]: on } }));
    if (on && way === 'behind') void this.ask();
    if (on && way === 'sound') knock();
  }

  /** Asks the browser whether it may notify, where it hasn't been asked. */
  async ask(): Promise<void> {
    if (typeof Notification !== 'undefined' && Notification.permission === 'default')
      await Notification.requestPermission().catch(() => 'denied');
  }

  /** What was said about it is past: the line says nothing that isn't so any more. */
  settle(kind: NoticeKind): void {
    if (this.lineOf === kind) this.said.clear();
  }

  tell(kind: NoticeKind, words: string): void {
    const { sound, sight, behind } = this.wishes()[kind];
    if (sound) knock();
    if (sight) {
      this.lineOf = kind;
      this.said.say(words);
    }
    if (behind && document.hidden && typeof Notification !== 'undefined') {
      // One for each kind: a class that arrives isn't ten notifications.
      if (Notification.permission === 'granted') new Notification(words, { tag: kind });
    }
  }
}
