import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  signal,
  untracked,
} from '@angular/core';
import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import { nameOf } from '@cuaderno/core/people';
import type { Id } from '@cuaderno/core/id';
import type { BoardSession } from '../../live/board-session';

/** So much of a message is read out, in characters. */
const LONGEST = 300;

/**
 * Says to anyone who doesn't see the screen what others see at a glance: that another page is in view, and what was
 * written in the chat.
 */
@Component({
  selector: 'cua-announcer',
  template: `
    <p class="unseen" role="status">{{ place() }}</p>
    <p class="unseen" role="status">{{ message() }}</p>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Announcer {
  readonly session = input.required<BoardSession>();
  /** The page in view. */
  readonly page = input<Id | null>(null);

  protected readonly place = computed(() => {
    const board = this.session().board();
    const page = board.pages.get(this.page() ?? '');
    if (!page) return '';
    const number = pageNumbers(board).get(page.id) ?? '';
    return `Page ${number} of ${pagesInOrder(board).length}${page.name ? `, ${page.name}` : ''}`;
  });
  protected readonly message = signal('');
  private known: ReadonlySet<Id> | null = null;

  constructor() {
    effect(() => {
      const lines = this.session().features.talk.chat();
      untracked(() => {
        const known = this.known;
        this.known = new Set(lines.map(({ id }) => id));
        const last = lines
          .filter(({ id, by }) => !known?.has(id) && by !== this.session().me())
          .at(-1);
        // What was said before one came is there to be read.
        if (!known || !last) return;
        const writer = this.session()
          .people()
          .find(({ id }) => id === last.by);
        this.message.set(`${writer ? nameOf(writer) : 'Someone'}: ${last.text.slice(0, LONGEST)}`);
      });
    });
  }
}
