import { signal } from '@angular/core';
import { isLineThin } from '../../browser/thin-line';
import { whenIdle } from '../../browser/when-idle';

/** When the editor is fetched at the latest, in ms, where the line isn't thin. */
const WAIT = 5000;

/** The editor of texts comes when it is used, or before, when nothing else is to be done. */
export class EditorAhead {
  /** What was typed until it was there. */
  readonly typed = signal('');

  constructor() {
    if (!isLineThin()) whenIdle(() => void import('./text-in-place').catch(() => null), WAIT);
  }

  /** Letters for a text whose editor is still on its way are no tools: they are kept for it. */
  takes({ key, ctrlKey, metaKey }: KeyboardEvent): boolean {
    const letter = key.length === 1 && !ctrlKey && !metaKey;
    if (letter) this.typed.update((words) => words + key);
    return letter;
  }
}
