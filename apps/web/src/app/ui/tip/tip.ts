import { afterRenderEffect, DestroyRef, Directive, ElementRef, inject, input } from '@angular/core';
import { Tips } from './tips';

/** What is heard with a name of its own. */
const NAMED = 'button, a, input, select, textarea, summary';

/**
 * What something is or does, and by which key: told where a pointer rests or a key brings the focus, and gone by Escape
 * (WCAG 2.2, 1.4.13). It is the name of what has no other, and the description of what has one.
 */
@Directive({
  selector: '[cuaTip]',
  host: {
    '(pointerenter)': 'rest($event)',
    '(pointerleave)': 'tips.leave(element)',
    '(focusin)': 'focused($event)',
    '(focusout)': 'tips.hide(element)',
    '(pointerdown)': 'tips.hide(element)',
    '(click)': 'tips.hide(element)',
  },
})
export class Tip {
  readonly words = input.required<string>({ alias: 'cuaTip' });
  protected readonly tips = inject(Tips);
  protected readonly element: HTMLElement =
    inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Whether this gave it the name that it has. */
  private names = false;

  constructor() {
    afterRenderEffect(() => this.tell(this.words()));
    inject(DestroyRef).onDestroy(() => this.tips.hide(this.element));
  }

  protected rest({ pointerType }: PointerEvent): void {
    // A finger that rests is about to press.
    if (pointerType !== 'touch') this.tips.show(this.element, this.words(), 'rest');
  }

  protected focused({ target }: FocusEvent): void {
    if (target instanceof Element && target.matches(':focus-visible'))
      this.tips.show(this.element, this.words(), 'once');
  }

  private tell(words: string): void {
    const { element } = this;
    if (!element.matches(NAMED)) return;
    const name = nameOf(element);
    this.names ||= name === '';
    if (this.names) element.setAttribute('aria-label', words);
    else if (name !== words) element.setAttribute('aria-description', words);
    else element.removeAttribute('aria-description');
  }
}

/** How it is called without a tip, as far as that is told from its own words; what a label says isn't asked. */
function nameOf(element: HTMLElement): string {
  const labels = (element as Partial<HTMLInputElement>).labels;
  if (element.hasAttribute('aria-labelledby') || labels?.length) return 'by its label';
  return element.getAttribute('aria-label') ?? element.textContent.trim();
}
