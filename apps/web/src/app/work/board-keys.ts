import { DestroyRef, ElementRef, inject, Injectable } from '@angular/core';

/** How long what a button opens may take to be there, in ms. */
const OPENS = 1500;
/** Where buttons open nothing that one types into. */
const OPENS_NOTHING = 'cua-work-area, cua-people-panel, [role="tab"]';

/** Whether something may be opening just now, into which somebody types already. */
@Injectable({ providedIn: 'root' })
export class Opening {
  private pressedAt = -Infinity;

  constructor() {
    const watch = new AbortController();
    const pressed = ({ target, timeStamp }: Event): void => {
      const control = target instanceof Element && target.closest('button, a, [role=menuitem]');
      if (control && !control.closest(OPENS_NOTHING)) this.pressedAt = timeStamp;
    };
    document.addEventListener('click', pressed, { capture: true, signal: watch.signal });
    inject(DestroyRef).onDestroy(() => watch.abort());
  }

  /** Whoever has touched the board since waits for nothing any more. */
  settle(): void {
    this.pressedAt = -Infinity;
  }

  /** @param at when a key was pressed, in ms as of events */
  isOpening(at: number): boolean {
    const over = document.querySelector('.p-dialog-mask, dialog:modal');
    return over !== null || at - this.pressedAt < OPENS;
  }
}

/** What belongs to it though it lies beside it: whoever has turned a page or given a pen goes on with the keys of tools. */
const ALSO = '[data-keys="board"]';

/**
 * Whether letters that are typed now are meant for the board: they are while it was touched or has had the focus last
 * (WCAG 2.2, 2.1.4 Character Key Shortcuts), and before anything was. Whoever has pressed a button elsewhere may type
 * into what that opens before it is there.
 */
export class BoardKeys {
  private meant = true;

  /** To be made where a component is, whose element is the board with its tools. */
  constructor() {
    const board = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const opening = inject(Opening);
    const watch = new AbortController();
    const look = ({ target }: Event): void => {
      // Beside everything, nothing was touched.
      if (!(target instanceof Element) || target.contains(board)) return;
      const onBoard = board.contains(target);
      if (onBoard) opening.settle();
      this.meant = onBoard || target.closest(ALSO) !== null;
    };
    for (const type of ['pointerdown', 'focusin'] as const)
      document.addEventListener(type, look, { capture: true, signal: watch.signal });
    inject(DestroyRef).onDestroy(() => watch.abort());
  }

  get areMeant(): boolean {
    return this.meant;
  }
}
