import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Button } from '../../ui/button/button';
import { LateOffers } from './late-offers';

/** “One line” or “3 lines”. */
function lines(n: number): string {
  return n === 1 ? 'One line' : `${n} lines`;
}

/** Tells a student what became of what they wrote while the connection was lost. It covers nothing. */
@Component({
  selector: 'cua-own-late-notice',
  imports: [Button],
  template: `@if (words().length > 0) {
    <div role="status">
      @for (text of words(); track text) {
        <p>{{ text }}</p>
      }
      @if (mayClose()) {
        <button type="button" cuaButton (click)="offers.told()">All right</button>
      }
    </div>
  }`,
  styles: `
    div {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: var(--space-2) var(--space-7);
      padding: var(--space-2) var(--space-7);
      background: var(--amber-soft);
      color: var(--ink);
      font-size: var(--size-m);
    }
    :host-context(.sheet) div {
      padding: var(--space-5) var(--space-7);
      border-radius: 10px;
    }
    p {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OwnLateNotice {
  /** Whether it is said here what hasn't reached the server yet. */
  readonly tellsStuck = input(true);
  protected readonly offers = inject(LateOffers);

  private readonly isNew = computed(
    () => this.offers.waiting() > 0 && this.offers.waiting() !== this.offers.read(),
  );
  /** What is kept in this browser stays in sight. */
  protected readonly mayClose = computed(
    () =>
      this.isNew() ||
      this.offers.refused() > 0 ||
      this.offers.own().some(({ added, left }) => added + left > 0),
  );
  protected readonly words = computed(() => {
    const [waiting, stuck, refused] = [
      this.offers.waiting(),
      this.offers.stuck(),
      this.offers.refused(),
    ];
    const sum = (of: 'added' | 'left'): number =>
      this.offers.own().reduce((all, one) => all + one[of], 0);
    const [added, left] = [sum('added'), sum('left')];
    return [
      ...(stuck > 0 && this.tellsStuck()
        ? [
            `${lines(stuck)} that you wrote while the connection was lost ${stuck === 1 ? 'is' : 'are'} kept here, and will go to your tutor when there is a connection.`,
          ]
        : []),
      ...(this.isNew()
        ? [
            `${lines(waiting)} that you wrote while the connection was lost ${waiting === 1 ? 'is' : 'are'} with your tutor, who will look at ${waiting === 1 ? 'it' : 'them'}.`,
          ]
        : []),
      ...(added > 0
        ? [
            `Your tutor added ${added === 1 ? 'a line' : `${added} lines`} that you wrote while the connection was lost.`,
          ]
        : []),
      ...(left > 0
        ? [
            `Your tutor looked at ${left === 1 ? 'a late line' : `${left} late lines`} of yours and left ${left === 1 ? 'it' : 'them'} out.`,
          ]
        : []),
      ...(refused > 0
        ? [
            `${refused === 1 ? 'One change' : `${refused} changes`} from while the connection was lost came too late. Look at the page, and do what is missing once more.`,
          ]
        : []),
    ];
  });
}
