import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LineState } from './lesson-line';

/** One calm line on how things stand with the server. It takes its own room and covers nothing. */
@Component({
  selector: 'cua-line-notice',
  template: `@if (words(); as text) {
    <p role="status">{{ text }}</p>
  }`,
  styles: `
    p {
      margin: 0;
      padding: var(--space-2) var(--space-7);
      background: var(--amber-soft);
      color: var(--ink);
      font-size: var(--size-m);
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineNotice {
  readonly state = input.required<LineState>();
  /** Whether the server can keep what is written. */
  readonly keeps = input(true);
  readonly waiting = input(0);
  /** Whether nothing has been heard of the server for longer than it takes. */
  readonly quiet = input(false);

  protected readonly words = computed(() => {
    if (this.state() === 'live' && !this.keeps())
      return 'There is no room left on the tutor’s disk. Writing rests until there is; what you wrote is kept here.';
    if (this.state() === 'live' && this.quiet())
      return 'The server doesn’t answer just now. Write on: all is kept here and sent when it does.';
    if (this.state() !== 'away') return null;
    const n = this.waiting();
    const lines = n === 0 ? '' : n === 1 ? ' One change waits.' : ` ${n} changes wait.`;
    return `Connection lost for a moment. Write on: all is kept here and sent when it is back.${lines}`;
  });
}
