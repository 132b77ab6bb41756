import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { UnexpectedErrors } from './unexpected-errors';

/** Tells of an error that nobody expected, on whatever screen it was, and offers to load that anew. */
@Component({
  selector: 'cua-unexpected-notice',
  template: `@if (errors.problem(); as problem) {
    <div role="alert">
      <p>
        <strong>{{ problem.title }}</strong> {{ problem.detail }}
      </p>
      <button type="button" (click)="reload()">Reload</button>
      <button type="button" (click)="errors.dismiss()">Close</button>
    </div>
  }`,
  styles: `
    @use '../../ui/theme/breakpoints';

    /* It has room of its own (see styles.scss): a page and its tools stay as they are, and are all there. */
    div {
      position: sticky;
      top: 0;
      z-index: 2000;
      display: flex;
      flex-wrap: wrap;
      gap: var(--space-2) var(--space-6);
      align-items: center;
      justify-content: center;
      height: var(--notice-room);
      padding: var(--space-2) var(--space-7);
      overflow: auto;
      background: var(--amber-soft);
      color: var(--ink);
    }
    @media (min-width: breakpoints.$narrow + 1px) {
      div {
        flex-wrap: nowrap;
      }
    }
    p {
      min-width: 0;
      margin: 0;
      font-size: var(--size-m);
      line-height: 1.3;
    }
    button {
      flex: none;
      min-height: var(--touch);
      padding: 0 var(--space-8);
      border: 1px solid var(--ink-soft);
      border-radius: var(--round);
      background: var(--raised);
      color: var(--ink);
      font: inherit;
      cursor: pointer;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnexpectedNotice {
  protected readonly errors = inject(UnexpectedErrors);

  protected reload(): void {
    location.reload();
  }
}
