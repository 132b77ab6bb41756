import { USUAL_SHORTCUTS } from '@cuaderno/contract/shortcuts';
import type { ShortcutSettings } from '@cuaderno/contract/shortcuts';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { Attempt } from '../../api/attempt';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { formatChord, isSingle, singlePressed } from './chord';
import type { Chord } from './chord';
import { chordsBy, isChangeable, Shortcuts } from './shortcuts';
import { SHORTCUT_GROUPS, SHORTCUTS, TUTORS } from './table';
import type { Command, Shortcut } from './table';

/** The list of all keys, in which those can be changed that are a letter, digit or sign alone. */
@Component({
  selector: 'cua-shortcuts-dialog',
  imports: [Button, DIALOG, ProblemMessage],
  templateUrl: './shortcuts-dialog.html',
  styleUrl: './shortcuts-dialog.scss',
  host: { '(keydown)': 'choose($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShortcutsDialog {
  /** Whether it is the tutor's: the class and the whole board are theirs. */
  readonly isTutor = input(false);
  readonly closed = output();
  protected readonly shortcuts = inject(Shortcuts);
  protected readonly attempt = new Attempt();
  /** For what another key is being chosen. */
  protected readonly choosing = signal<Command | null>(null);
  /** What has come of the key that was pressed last. */
  protected readonly said = signal('');
  protected readonly isChanged = computed(
    () => Object.keys(this.shortcuts.settings().changed).length > 0,
  );
  protected readonly groups = computed(() => {
    const settings = this.shortcuts.settings();
    const shown = SHORTCUTS.filter(({ name }) => this.isTutor() || !TUTORS.has(name));
    return SHORTCUT_GROUPS.map((title) => ({
      title,
      rows: shown
        .filter(({ group }) => group === title)
        .map((shortcut) => this.rowOf(shortcut, settings)),
    }));
  });

  private rowOf(shortcut: Shortcut, settings: ShortcutSettings) {
    const { name, label } = shortcut;
    const chords = chordsBy(shortcut, { ...settings, singleKeys: true });
    const format = (chord: Chord): string => formatChord(chord);
    const isFree = isChangeable(shortcut);
    return {
      ...{ name, label, isFree },
      single: isFree ? chords.filter(isSingle).map(format).join(' or ') || 'no key' : '',
      fixed: chords.filter((chord) => !isFree || !isSingle(chord)).map(format),
      rests: isFree && !settings.singleKeys,
    };
  }

  protected ask(command: Command): void {
    this.choosing.update((now) => (now === command ? null : command));
    this.said.set('');
  }

  /** A key is pressed while another is being chosen for something. */
  protected choose(event: KeyboardEvent): void {
    const command = this.choosing();
    const isAsked = event.target instanceof Element && event.target.closest('button.key');
    if (!command || !isAsked || ['Tab', 'Enter', ' ', 'Shift'].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') return this.choosing.set(null);
    if (event.key === 'Delete' || event.key === 'Backspace') return this.set(command, null);
    const chord = singlePressed(event);
    if (!chord) return this.said.set('That can’t be chosen. Press one letter, digit or sign.');
    const other = this.shortcuts.takenBy(chord, command);
    if (other)
      return this.said.set(
        `${formatChord(chord)} is the key for “${other.label}”. Press another, or change that one first.`,
      );
    this.set(command, chord);
  }

  private set(command: Command, chord: Chord | null): void {
    this.choosing.set(null);
    const label = SHORTCUTS.find(({ name }) => name === command)!.label;
    this.said.set(
      chord ? `“${label}” is ${formatChord(chord)} now.` : `“${label}” has no single key now.`,
    );
    const { changed, ...rest } = this.shortcuts.settings();
    this.keep({ ...rest, changed: { ...changed, [command]: chord } });
  }

  protected turn(singleKeys: boolean): void {
    this.keep({ ...this.shortcuts.settings(), singleKeys });
  }

  protected reset(): void {
    this.said.set('All keys are as they were at first.');
    this.keep({ ...this.shortcuts.settings(), changed: USUAL_SHORTCUTS.changed });
  }

  protected keep(settings: ShortcutSettings): void {
    void this.attempt.make(() => this.shortcuts.change(settings));
  }
}
