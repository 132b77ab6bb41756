import { ShortcutSettings, USUAL_SHORTCUTS } from '@cuaderno/contract/shortcuts';
import { computed, Injectable, signal } from '@angular/core';
import { readJson } from '../../browser/read-json';
import { lasting, remember } from '../../browser/storage';
import { ariaChord, formatChord, isPressed, isSame, isSingle } from './chord';
import type { Chord } from './chord';
import { SHORTCUTS } from './table';
import type { Command, Shortcut } from './table';

const KEY = 'cuaderno.shortcuts';

/** Where what was changed about the keys is kept; rejects where it couldn't be. */
export type KeepShortcuts = (settings: ShortcutSettings) => Promise<void>;

/** Of a student, who has no account. */
const inBrowser: KeepShortcuts = (settings) => {
  remember(lasting, KEY, JSON.stringify(settings));
  return Promise.resolve();
};

function keptInBrowser(): ShortcutSettings {
  return readJson(ShortcutSettings, lasting.getItem(KEY)) ?? USUAL_SHORTCUTS;
}

/** Whether another key can be chosen for it: one that it does by a letter, digit or sign alone. */
export function isChangeable({ chords }: Pick<Shortcut, 'chords'>): boolean {
  return chords.some(isSingle);
}

/** The keys that do it, as somebody has changed them. */
export function chordsBy(shortcut: Shortcut, settings: ShortcutSettings): readonly Chord[] {
  const changed = Object.hasOwn(settings.changed, shortcut.name)
    ? settings.changed[shortcut.name]
    : undefined;
  const singles = shortcut.chords.filter(isSingle);
  const others = shortcut.chords.filter((chord) => !isSingle(chord));
  if (!settings.singleKeys) return others;
  if (changed === undefined || singles.length === 0) return shortcut.chords;
  return changed === null ? others : [changed, ...others];
}

/** Which keys do what on a board, for whoever is at this window. */
@Injectable({ providedIn: 'root' })
export class Shortcuts {
  private readonly own = signal(keptInBrowser());
  private keep = inBrowser;
  readonly settings = this.own.asReadonly();
  private readonly chords = computed(
    () => new Map(SHORTCUTS.map((shortcut) => [shortcut.name, chordsBy(shortcut, this.own())])),
  );

  /** The keys that do something; none where its only ones are turned off. */
  of(command: Command): readonly Chord[] {
    return this.chords().get(command) ?? [];
  }

  /** Whether somebody asks for it by this key. */
  asks(event: KeyboardEvent, command: Command): boolean {
    return this.of(command).some((chord) => isPressed(event, chord));
  }

  /** What a tip says: with the key, where there is one. */
  tip(words: string, command: Command): string {
    const [first] = this.of(command);
    return first ? `${words} (${formatChord(first)})` : words;
  }

  /** For `aria-keyshortcuts`. */
  aria(command: Command): string | null {
    return (
      this.of(command)
        .map((chord) => ariaChord(chord))
        .join(' ') || null
    );
  }

  /** What else is done by a key already. */
  takenBy(chord: Chord, besides: Command): Shortcut | null {
    const settings = { ...this.own(), singleKeys: true };
    const takes = (shortcut: Shortcut): boolean =>
      chordsBy(shortcut, settings).some((one) => isSame(one, chord));
    return SHORTCUTS.find((shortcut) => shortcut.name !== besides && takes(shortcut)) ?? null;
  }

  /** Holds at once, and rejects if it can't be kept for the next time. */
  async change(settings: ShortcutSettings): Promise<void> {
    this.own.set(settings);
    await this.keep(settings);
  }

  /** From now on they are those of an account, and kept there. */
  keepBy(keep: KeepShortcuts, settings: ShortcutSettings): void {
    this.keep = keep;
    this.own.set(settings);
  }

  /** They are those of this browser again: nobody's account is used in it any more. */
  keepInBrowser(): void {
    this.keepBy(inBrowser, keptInBrowser());
  }
}
