import type { Answer } from '@cuaderno/contract/route';
import type { listUnreadable } from '@cuaderno/contract/routes/boards';
import { pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { BoardsApi } from '../../api/boards-api';
import { Button } from '../../ui/button/button';
import { SidePanel } from '../../ui/popup/side-panel';
import { formatWhen } from '../../ui/time/format-time';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** What can't be read of a board any more, as the server tells it. */
type UnreadableCount = Answer<typeof listUnreadable>['entries'][number];

const WORDS: Record<UnreadableCount['kind'], string> = {
  line: 'A line',
  item: 'A text, a picture or another thing',
  erasing: 'Something that was erased or brought back',
  page: 'A page, or how it was laid out',
  board: 'A setting of the board',
  unknown: 'Something; what it was can’t be read either',
};

/**
 * Says that something on the page in view can't be read any more, since the server's disk is damaged where it lay.
 * All else is as it was.
 */
@Component({
  selector: 'cua-unreadable-notice',
  imports: [Button, ProblemMessage, SidePanel],
  template: `
    @if (words(); as text) {
      <p class="bar" role="status">
        {{ text }}
        @if (reportOf()) {
          <button type="button" cuaButton (click)="show()">What is it?</button>
        }
      </p>
    }
    @if (open()) {
      <cua-side-panel header="What can’t be read" (closed)="open.set(false)">
        <p class="note">
          The disk of the server is damaged where this lay. All else on the board is as it was, and
          you can go on writing. Tell the person who runs the server: an earlier backup may have it.
        </p>
        <cua-problem [of]="attempt.problem()" />
        <ul>
          @for (entry of entries(); track entry.seq) {
            <li>
              <strong>{{ what[entry.kind] }}</strong>
              <span class="note"
                ><bdi>{{ about(entry) }}</bdi></span
              >
            </li>
          }
        </ul>
      </cua-side-panel>
    }
  `,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: var(--space-6);
      margin: 0;
      padding: var(--space-2) var(--space-8);
      background: var(--amber-soft, var(--panel));
      border-bottom: 1px solid var(--line);
    }
    .note {
      margin: 0 0 var(--space-4);
      color: var(--ink-soft);
    }
    ul {
      display: grid;
      gap: var(--space-5);
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnreadableNotice {
  readonly board = input.required<Board>();
  /** The page in view. */
  readonly page = input<Id | null>(null);
  /** The board whose report may be asked for: the tutor's to do. */
  readonly reportOf = input<Id | null>(null);
  private readonly boardsApi = inject(BoardsApi);
  protected readonly what = WORDS;
  protected readonly open = signal(false);
  protected readonly entries = signal<readonly UnreadableCount[]>([]);
  protected readonly attempt = new Attempt();

  protected readonly words = computed(() => {
    const { pages, unreadable = 0 } = this.board();
    const here = pages.get(this.page() ?? '')?.unreadable ?? 0;
    if (here > 0)
      return `${here === 1 ? 'Something' : `${here} things`} on this page can’t be read any more. The rest is as it was.`;
    // Of what isn't on any page that is known, the tutor alone is told.
    const known = [...pages.values()].reduce((sum, page) => sum + (page.unreadable ?? 0), 0);
    return unreadable > known && this.reportOf()
      ? 'Something on this board can’t be read any more. The rest is as it was.'
      : null;
  });

  protected async show(): Promise<void> {
    const board = this.reportOf();
    if (board === null) return;
    this.open.set(true);
    await this.attempt.make(async () => {
      const { entries } = await firstValueFrom(this.boardsApi.listUnreadable(board));
      this.entries.set(entries);
    });
  }

  /** Where it was, of whom and of when, as far as that is known. */
  protected about({ page, by, at }: UnreadableCount): string {
    const place = pagesInOrder(this.board()).findIndex(({ id }) => id === page);
    return [
      place < 0 ? 'on a page that isn’t known' : `on page ${place + 1}`,
      ...(by ? [`by ${by}`] : []),
      ...(at ? [formatWhen(at)] : []),
    ].join(', ');
  }
}
