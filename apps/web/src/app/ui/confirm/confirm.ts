import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import { Button } from '../button/button';

/**
 * Asks once more before something goes that doesn't come back, in the place of the button that was pressed. What
 * happens then is its content. The focus is on the answer that changes nothing, Escape gives that answer, and the
 * focus goes back to the button where it returns.
 */
@Component({
  selector: 'cua-confirm',
  imports: [Button],
  host: {
    role: 'group',
    '[attr.aria-label]': 'does() + "?"',
    '(keydown.escape)': '$event.stopPropagation(); kept.emit()',
  },
  template: `
    <p><ng-content /></p>
    <span class="answers">
      <button #keep cuaButton (click)="kept.emit()">{{ keeps() }}</button>
      <button cuaButton="closing" [disabled]="busy()" (click)="confirmed.emit()">
        {{ does() }}
      </button>
    </span>
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--space-4);
    }
    p {
      margin: 0;
    }
    .answers {
      display: flex;
      flex-wrap: wrap;
      gap: var(--space-4);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Confirm {
  /** What is done if it is confirmed, as a button says it. */
  readonly does = input.required<string>();
  /** What is said to leave all as it is. */
  readonly keeps = input('Keep it');
  /** Whether it is being done. */
  readonly busy = input(false);
  readonly confirmed = output();
  readonly kept = output();
  private readonly keep = viewChild.required<ElementRef<HTMLButtonElement>>('keep');

  constructor() {
    const place = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    let around: Element | null = null;
    let others: readonly Element[] = [];
    afterNextRender(() => {
      around = place.closest('[role="dialog"]') ?? place.parentElement;
      others = buttonsIn(around);
      this.keep().nativeElement.focus();
    });
    inject(DestroyRef).onDestroy(() =>
      // What stands in its place is drawn first.
      requestAnimationFrame(() => {
        const back = buttonsIn(around).filter((one) => !others.includes(one));
        goBack(back.find((one) => one.textContent.trim().startsWith(this.does())) ?? back[0]);
      }),
    );
  }
}

function buttonsIn(around: Element | null): readonly HTMLButtonElement[] {
  return [...(around?.querySelectorAll('button') ?? [])];
}

/** The button that asked was taken away, and is made anew: it is called like what it does. */
function goBack(asker: HTMLElement | undefined): void {
  const isFree = document.activeElement === null || document.activeElement === document.body;
  if (isFree) asker?.focus({ preventScroll: true });
}
