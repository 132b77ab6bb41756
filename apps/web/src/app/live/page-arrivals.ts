import { signal } from '@angular/core';
import { nearestPages } from '@cuaderno/core/board';
import { MAX_PAGES } from '@cuaderno/core/features';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';

/** Items that are asked for at once: at first, at least and at most. */
const ITEMS = { first: 200, least: 50, most: 3000 };
/** How long an answer may take, in ms: below the first, more is asked for; above the second, less. */
const QUICK = 120;
const SLOW = 400;

/**
 * What is on pages, while it comes: asks for it piece by piece, the page that is looked at first and the
 * others after it, in pieces as large as the line takes quickly. So whatever else is said gets through
 * in between, and a page one turns to comes next.
 */
export class PageArrivals {
  private readonly left = signal<ReadonlyMap<Id, number>>(new Map());
  /** What was asked for, and when. */
  private readonly asked = new Map<Id, number>();
  private waiting: { readonly pages: readonly Id[]; readonly then: () => void }[] = [];
  private items = ITEMS.first;

  /** Pages of which what is on them is still to come, with the number of items. */
  readonly coming = this.left.asReadonly();

  constructor(private readonly ask: (ids: Id[]) => boolean) {}

  /** A board has come without what is on these pages. */
  expect(coming: ReadonlyMap<Id, number>): void {
    this.asked.clear();
    this.left.set(coming);
    this.callBack();
  }

  /** What is on these pages is here, or there is nothing there any more. */
  arrived(ids: readonly Id[]): void {
    // What nobody asked for says nothing of the line.
    const since = Math.max(...ids.map((id) => this.asked.get(id) ?? NaN));
    const took = performance.now() - since;
    if (took < QUICK) this.items = Math.min(ITEMS.most, this.items * 2);
    else if (took > SLOW) this.items = Math.max(ITEMS.least, this.items / 2);
    const left = new Map(this.left());
    for (const id of ids) {
      left.delete(id);
      this.asked.delete(id);
    }
    this.left.set(left);
    this.callBack();
  }

  /** The line broke: what was asked for won't come. */
  lost(): void {
    this.asked.clear();
  }

  whenHere(pages: readonly Id[], then: () => void): void {
    this.waiting.push({ pages, then });
    this.callBack();
  }

  /** Asks for what comes next, if anything does. */
  askOn(board: Board, looked: Id | null): void {
    const left = this.left();
    if (left.size === 0) return;
    const wanted = [looked, ...this.waiting.flatMap(({ pages }) => pages)].filter(
      (id): id is Id => id !== null && left.has(id) && !this.asked.has(id),
    );
    // What someone waits for doesn't wait for what was asked for in passing.
    if (wanted.length > 0) return this.askFor(wanted.slice(0, MAX_PAGES));
    if (this.asked.size > 0) return;
    const weight = ({ id }: { id: Id }): number => left.get(id) ?? 0;
    this.askFor(nearestPages(board, looked, weight, this.items, MAX_PAGES));
  }

  private askFor(ids: Id[]): void {
    if (ids.length === 0 || !this.ask(ids)) return;
    const now = performance.now();
    for (const id of ids) this.asked.set(id, now);
  }

  private callBack(): void {
    const left = this.left();
    const isHere = ({ pages }: { pages: readonly Id[] }): boolean =>
      !pages.some((id) => left.has(id));
    const ready = this.waiting.filter(isHere);
    this.waiting = this.waiting.filter((one) => !isHere(one));
    for (const { then } of ready) then();
  }
}
