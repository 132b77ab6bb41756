import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import { fold } from '@cuaderno/core/log';
import { nameOf } from '@cuaderno/core/people';
import type { Board, Page } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { Operation } from '@cuaderno/core/ops';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { PageThumb } from '../../board/pages/page-thumb';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import type { PaperSource } from '../../board/drawing/paper-source';
import { formatWhen } from '../../ui/time/format-time';
import type { LateLines, LateWay } from './shapes';
import { WaitingLateLines } from './waiting-late-lines';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { Attempt } from '../../api/attempt';

/** Width of a page's picture, in CSS px. */
const ACROSS = 300;

/** A page as it is and as it would be. */
interface SeenLines {
  readonly now: Page;
  readonly then: Page;
  readonly number: string;
}

const key = ({ lesson, person, board }: LateLines): string => `${lesson} ${person} ${board}`;

/**
 * Late lines of a board or a record: the pages as they are, as they would be with them, and one touch to add them
 * or to leave them.
 */
@Component({
  selector: 'cua-late-lines-dialog',
  imports: [Button, DIALOG, PageThumb, ProblemMessage],
  templateUrl: './late-lines-dialog.html',
  styleUrl: './late-lines-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LateLinesDialog {
  /** Those that wait here. */
  readonly lines = input.required<readonly LateLines[]>();
  /** The board on which they would lie. */
  readonly board = input.required<Board>();
  readonly papers = input.required<PaperSource>();
  /** What each of them is on that board; itself, but where that is a record of several. */
  readonly placed = input<(op: Operation, board: Id) => Operation>((op) => op);
  /** Where they may go from here. */
  readonly ways = input.required<readonly Exclude<LateWay, 'nowhere'>[]>();
  readonly settled = output<LateWay>();
  readonly closed = output();

  private readonly waiting = inject(WaitingLateLines);
  private readonly chosen = signal<string | null>(null);
  private readonly ops = signal<readonly Operation[] | null>(null);
  protected readonly attempt = new Attempt();
  protected readonly across = ACROSS;
  protected readonly say = { when: formatWhen, name: nameOf };

  protected readonly current = computed(() => {
    const all = this.lines();
    return all.find((one) => key(one) === this.chosen()) ?? all[0] ?? null;
  });
  protected readonly seen = computed<readonly SeenLines[] | null>(() => {
    const [current, ops] = [this.current(), this.ops()];
    if (!current || !ops) return null;
    const board = this.board();
    const stamp = { by: current.person, at: current.at, lesson: current.lesson };
    const then = fold(
      board,
      ops.map((op) => ({ ...stamp, seq: 0, op })),
    );
    const touched = new Set(ops.map((op) => ('page' in op ? op.page : null)));
    const numbers = pageNumbers(board);
    return pagesInOrder(board).flatMap((now) =>
      touched.has(now.id)
        ? [{ now, then: then.pages.get(now.id)!, number: numbers.get(now.id)! }]
        : [],
    );
  });
  /** How many have no page here any more. */
  protected readonly without = computed(() => {
    const there = new Set<Id>(pagesInOrder(this.board()).map(({ id }) => id));
    return (this.ops() ?? []).filter((op) => !('page' in op && op.page && there.has(op.page)))
      .length;
  });

  constructor() {
    effect(() => {
      const current = this.current();
      if (current) untracked(() => void this.look(current));
      else untracked(() => this.closed.emit());
    });
  }

  protected isChosen(one: LateLines): boolean {
    return key(one) === (this.current() && key(this.current()!));
  }

  protected choose(one: LateLines): void {
    this.chosen.set(key(one));
  }

  protected async look(one: LateLines): Promise<void> {
    this.ops.set(null);
    await this.attempt.make(async () => {
      const ops = (await this.waiting.look(one)).map((op) => this.placed()(op, one.board));
      if (this.isChosen(one)) this.ops.set(ops);
    });
  }

  protected async settle(one: LateLines, to: LateWay): Promise<void> {
    await this.attempt.make(async () => {
      await this.waiting.settle(one, to);
      this.settled.emit(to);
    });
  }
}
