import type { Board, InkItem, Removal } from '../board/index.js';
import type { Id } from '../id/index.js';
import { additionOf, invert, operation, touchedBy } from '../ops/index.js';
import type { Operation } from '../ops/index.js';

/** Steps that can be undone. */
const MAX_STEPS = 500;

/** What was done in one go, such as all that one sweep of the eraser took away. */
type Step = readonly Operation[];

/**
 * What one person can undo and redo. It keeps operations, not states: undoing is a new operation,
 * the inverse against the board as it is then, checked by the server like any other.
 */
export class History {
  private done: Step[] = [];
  private undone: Step[] = [];
  private gesture: object | null = null;

  constructor(private readonly who: Id) {}

  get canUndo(): boolean {
    return this.done.length > 0;
  }

  get canRedo(): boolean {
    return this.undone.length > 0;
  }

  /** @param gesture operations with the same gesture, one after the other, are one step */
  record(op: Operation, gesture: object | null = null): void {
    const last = this.done[this.done.length - 1];
    if (gesture && gesture === this.gesture && last)
      this.done[this.done.length - 1] = [...last, op];
    else this.done = [...this.done, [op]].slice(-MAX_STEPS);
    this.gesture = gesture;
    this.undone = [];
  }

  /**
   * Goes on where an earlier visit ended: what this person drew in this lesson, and what they took
   * out, can be undone after a reload as before. What was done since comes first.
   */
  resume(board: Board, lesson: Id | null): void {
    const steps: { ops: Operation[]; at: number }[] = [];
    const taken = new Map<number, Operation[]>();
    const since = this.touched();
    const pieces = new Map<Id, InkItem[]>();
    for (const page of board.pages.values())
      for (const item of page.items.values())
        if (item.kind === 'ink' && item.of)
          pieces.set(item.of, [...(pieces.get(item.of) ?? []), item]);
    const takenAt = (removed: Removal | null, of: Id, op: () => Operation): void => {
      if (removed?.by !== this.who || since.has(of)) return;
      const ops = taken.get(removed.at);
      if (ops) ops.push(op());
      else taken.set(removed.at, [op()]);
    };
    for (const page of board.pages.values()) {
      takenAt(page.removed, page.id, () => operation({ kind: 'pages.remove', pages: [page.id] }));
      for (const item of page.items.values()) {
        if (item.lesson !== lesson) continue;
        takenAt(item.removed, item.id, () => {
          const left = pieces.get(item.id)?.map(({ id, ink }) => ({ id, ink }));
          return operation(
            left
              ? { kind: 'ink.cut', page: page.id, item: item.id, pieces: left }
              : { kind: 'items.remove', page: page.id, items: [item.id] },
          );
        });
        // What is left of a line was there when its part was rubbed out: that is the step.
        if (item.kind === 'ink' && item.of) continue;
        if (item.by === this.who && !item.removed && !since.has(item.id))
          steps.push({ ops: [additionOf(item, page.id)], at: item.at });
      }
    }
    // What was taken out in one go came to the server in one go.
    for (const [at, ops] of taken) steps.push({ ops, at });
    steps.sort((a, b) => a.at - b.at);
    this.done = [...steps.map(({ ops }) => ops), ...this.done].slice(-MAX_STEPS);
  }

  /** Operations that undo the last step that still has something to undo; none if there is none. */
  undo(board: Board): Step {
    return this.turnBack(this.done, this.undone, board);
  }

  redo(board: Board): Step {
    return this.turnBack(this.undone, this.done, board);
  }

  /** All that was added, taken out or brought back in steps that are known. */
  private touched(): Set<Id> {
    const steps = [...this.done, ...this.undone].flat();
    return new Set(steps.flatMap(touchedBy));
  }

  private turnBack(from: Step[], to: Step[], board: Board): Step {
    this.gesture = null;
    for (let step = from.pop(); step; step = from.pop()) {
      const inverse = [...step].reverse().flatMap((op) => invert(op, board, this.who) ?? []);
      if (inverse.length > 0) {
        to.push(inverse);
        return inverse;
      }
    }
    return [];
  }
}
