import { DestroyRef, inject, Injectable } from '@angular/core';
import { isModalComing } from './modal';

const FIELD = 'input, select, textarea, [contenteditable]';
const WRITTEN = 'input:not([type]), input[type=text], input[type=search], textarea';
const PRESSED = 'button, a, [role=button], [role=menuitem]';
/** Frames until what a press opens is there. */
const FRAMES = 3;
/** How long letters are kept for a field that hasn't come, in ms. */
const KEPT = 3000;

/**
 * Anyone who has pressed a button types on into what it opens, before that is there: the letters are kept for its first
 * field, and are no shortcuts meanwhile. A press is drawn in the next frame; what it opened is seen then by being there.
 */
@Injectable({ providedIn: 'root' })
export class TypedAhead {
  private words = '';
  private pressedAt = -Infinity;
  private isDrawn = true;

  constructor() {
    const watch = new AbortController();
    const options = { capture: true, signal: watch.signal };
    // Anyone who points elsewhere means that: a field which takes the focus by it isn't what was typed for.
    document.addEventListener('pointerdown', () => (this.words = ''), options);
    document.addEventListener('click', (event) => this.press(event), options);
    document.addEventListener('keydown', (event) => this.hear(event), options);
    document.addEventListener('focusin', (event) => this.give(event), options);
    inject(DestroyRef).onDestroy(() => watch.abort());
  }

  /** Whether what is typed now may be meant for something that is opening. */
  isOpening(): boolean {
    return !this.isDrawn || isModalComing();
  }

  private press({ target, timeStamp }: Event): void {
    this.words = '';
    this.pressedAt = -Infinity;
    if (!(target instanceof Element) || !target.closest(PRESSED)) return;
    this.pressedAt = timeStamp;
    this.isDrawn = false;
    // The next frame draws what was pressed for, on a busy machine the one after it; then it is there.
    const soon = (frames: number): void => {
      if (frames === 0) this.isDrawn = true;
      else requestAnimationFrame(() => soon(frames - 1));
    };
    soon(FRAMES);
  }

  private hear({ key, target, timeStamp, ctrlKey, metaKey, altKey }: KeyboardEvent): void {
    const inField = target instanceof Element && target.closest(FIELD) !== null;
    if (key === 'Tab' || key === 'Escape') this.words = '';
    if (key.length !== 1 || ctrlKey || metaKey || altKey || inField) return;
    const isLate = timeStamp - this.pressedAt > KEPT;
    if (isLate || !this.isOpening()) this.words = '';
    else if (key !== ' ' || this.words !== '') this.words += key;
  }

  /**
   * A field that takes the focus has what was typed for it, once the one who opened it has put it there. A button
   * may have the focus on the way: where something else closes at the same time, it goes back there first.
   */
  private give({ target: field, timeStamp }: FocusEvent): void {
    const { words } = this;
    if (words === '' || !(field instanceof HTMLElement) || !field.matches(FIELD)) return;
    this.words = '';
    if (!field.matches(WRITTEN) || timeStamp - this.pressedAt > 2 * KEPT) return;
    const { value, selectionStart, selectionEnd } = field as HTMLInputElement | HTMLTextAreaElement;
    const end = selectionEnd ?? value.length;
    // As if it were typed now: what is selected goes.
    (field as HTMLInputElement).setRangeText(words, selectionStart ?? end, end, 'end');
    field.dispatchEvent(new InputEvent('input', { bubbles: true, data: words }));
  }
}
