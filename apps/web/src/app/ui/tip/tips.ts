import { DestroyRef, DOCUMENT, inject, Injectable } from '@angular/core';

/** How long a pointer rests on something before it is told what that is, in ms. */
const REST = 450;
/** How long after one tip the next comes without waiting, as along a row that is read, in ms. */
const AGAIN = 300;
/** How long a pointer may be on its way from what is explained to the explanation, in ms (WCAG 2.2, 1.4.13). */
const ON_THE_WAY = 150;
/** Space between a tip and what it belongs to, and the window's edge, in CSS px. */
const GAP = 6;

/** The tip that is on the screen: one at a time, above dialogs too. */
@Injectable({ providedIn: 'root' })
export class Tips {
  private readonly document = inject(DOCUMENT);
  private readonly panel = this.makePanel();
  private target: Element | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private goneAt = -Infinity;

  constructor() {
    const escape = ({ key }: KeyboardEvent): void => {
      if (key === 'Escape') this.hide();
    };
    this.document.addEventListener('keydown', escape);
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.timer);
      this.document.removeEventListener('keydown', escape);
      this.panel.remove();
    });
  }

  /** Tells at once, as where a key has brought the focus; or once a pointer has rested there. */
  show(target: Element, words: string, at: 'once' | 'rest'): void {
    clearTimeout(this.timer);
    const waits = at === 'rest' && !this.target && performance.now() - this.goneAt > AGAIN;
    this.timer = setTimeout(() => this.open(target, words), waits ? REST : 0);
  }

  /** The pointer has left; it may be on its way to the words. */
  leave(target: Element): void {
    clearTimeout(this.timer);
    if (this.target === target) this.timer = setTimeout(() => this.hide(target), ON_THE_WAY);
  }

  hide(target: Element | null = this.target): void {
    clearTimeout(this.timer);
    if (!this.target || this.target !== target) return;
    this.target = null;
    this.goneAt = performance.now();
    if (this.panel.matches(':popover-open')) this.panel.hidePopover();
  }

  private open(target: Element, words: string): void {
    if (!target.isConnected || words === '') return;
    const { panel } = this;
    this.target = target;
    panel.textContent = words;
    if (!panel.isConnected) this.document.body.append(panel);
    // The last one shown lies above all others.
    if (panel.matches(':popover-open')) panel.hidePopover();
    panel.showPopover();
    const { width, height } = panel.getBoundingClientRect();
    const { left, top } = placeOf(target, width, height);
    panel.style.left = `${Math.max(GAP, Math.min(left, innerWidth - width - GAP))}px`;
    panel.style.top = `${Math.max(GAP, Math.min(top, innerHeight - height - GAP))}px`;
  }

  private makePanel(): HTMLElement {
    const panel = this.document.createElement('div');
    panel.className = 'cua-tip';
    panel.popover = 'manual';
    // What is explained says it itself to those who hear it.
    panel.ariaHidden = 'true';
    panel.addEventListener('pointerenter', () => clearTimeout(this.timer));
    panel.addEventListener('pointerleave', () => this.hide());
    return panel;
  }
}

/**
 * Where a tip lies, in CSS px of the window: below what it belongs to, or above it. In a column whose buttons it would
 * cover (`data-tips="beside"`) it lies beside the column.
 */
function placeOf(target: Element, width: number, height: number): { left: number; top: number } {
  const box = target.getBoundingClientRect();
  const column = target.closest('[data-tips="beside"]')?.getBoundingClientRect();
  if (column && column.width < innerWidth / 2) {
    const right = column.right + GAP;
    const left = right + width + GAP <= innerWidth ? right : column.left - GAP - width;
    return { left, top: box.top + (box.height - height) / 2 };
  }
  const below = box.bottom + GAP;
  const top = below + height + GAP <= innerHeight ? below : box.top - GAP - height;
  return { left: box.left + (box.width - width) / 2, top };
}
