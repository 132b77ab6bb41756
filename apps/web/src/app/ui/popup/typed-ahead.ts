import { afterNextRender, DestroyRef, inject, Injectable, Injector } from '@angular/core';
import { isModalComing } from './modal';

const FIELD = 'input, select, textarea, [contenteditable]';
const WRITTEN = 'input:not([type]), input[type=text], input[type=search], textarea';
const PRESSED = 'button, a, [role=button], [role=menuitem]';
/** How long letters are kept for a field that hasn't come, in ms. */
const KEPT = 3000;

/**
 * Anyone who has pressed a button types on into what it opens, before that is there: the letters are kept for its first
 * field, and are no shortcuts meanwhile. Nor do a space and Enter among them press the button again, which has the focus
 * until then.
 */
@Injectable({ providedIn: 'root' })
export class TypedAhead {
  private words = '';
  private pressedAt = -Infinity;
  private isDrawn = true;
  private readonly injector = inject(Injector);

  constructor() {
    const watch = new AbortController();
    const options = { capture: true, signal: watch.signal };
    // Anyone who points elsewhere means that: a field which takes the focus by it isn't what was typed for.
    document.addEventListener('pointerdown', () => (this.words = ''), options);
    document.addEventListener('click', (event) => this.press(event), options);
    document.addEventListener('keydown', (event) => this.hear(event), options);
    document.addEventListener('keyup', (event) => this.release(event), options);
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
    // What was pressed for is there when Angular has drawn it, or with the frame after that.
    const drawn = (): number => requestAnimationFrame(() => (this.isDrawn = true));
    afterNextRender(() => requestAnimationFrame(drawn), { injector: this.injector });
  }

  private hear(event: KeyboardEvent): void {
    const { key, target, timeStamp, ctrlKey, metaKey, altKey } = event;
    const inField = target instanceof Element && target.closest(FIELD) !== null;
    if (key === 'Tab' || key === 'Escape') this.words = '';
    if (ctrlKey || metaKey || altKey || inField) return;
    if (timeStamp - this.pressedAt > KEPT || !this.isOpening()) {
      if (key.length === 1) this.words = '';
      return;
    }
    const isPress = key === ' ' || key === 'Enter';
    // The one who presses a button twice by keyboard means that, until something is on its way.
    if (isPress && this.words === '' && !isModalComing()) return;
    if (isPress) event.preventDefault();
    if (key === 'Backspace') this.words = this.words.slice(0, -1);
    else if (key.length === 1 && (key !== ' ' || this.words !== '')) this.words += key;
  }

  /** Firefox presses a button as a space is let go. */
  private release(event: KeyboardEvent): void {
    if (event.key === ' ' && this.words !== '') event.preventDefault();
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
