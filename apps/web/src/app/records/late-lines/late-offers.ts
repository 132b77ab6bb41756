import {
  acknowledgeLateLines,
  listOwnLateLines,
  offerLateLines,
} from '@cuaderno/contract/routes/late-lines';
import type { Id } from '@cuaderno/core/id';
import type { Operation } from '@cuaderno/core/ops';
import { computed, inject, Injectable, signal } from '@angular/core';
import { firstValueFrom, Subject, Subscription, timer } from 'rxjs';
import { Api } from '../../api/api';
import { ApiError } from '../../api/problem';
import { keptByPeople } from '../../live/kept-by-people';
import type { OwnLateLines } from './shapes';

/** How long it is waited before the server is tried again, in ms. */
const AGAIN = 5000;

/** Few browsers have anything to offer, and it brings all that is known of boards along. */
const lateBatchesCode = () => import('./late-batches');

/**
 * A student's late lines: what was written in this browser while the connection was lost, and could not be taken
 * when it was back. It is offered to the server until that has it, also in a later lesson, and forgotten here only then.
 */
@Injectable({ providedIn: 'root' })
export class LateOffers {
  private readonly api = inject(Api);
  /** Operations of earlier visits that haven't reached the server. */
  readonly stuck = signal(0);
  /** Changes that can't be taken any more: what was rubbed out, moved or changed meanwhile. */
  readonly refused = signal(0);
  readonly own = signal<readonly OwnLateLines[]>([]);
  /** How many waited when the student had read that they do: it is said again when others do. */
  readonly read = signal(0);
  /** How many wait for a tutor. */
  readonly waiting = computed(() => this.own().reduce((sum, { waiting }) => sum + waiting, 0));
  /** Ids of what doesn't have to be kept here any more. */
  readonly done = new Subject<readonly Id[]>();
  private last: Promise<unknown> = Promise.resolve();
  private again = Subscription.EMPTY;

  /**
   * Offers what was done as this person; what the server has now, or never will, is forgotten here and told by `done`.
   * Throws `ApiError`.
   */
  offer(board: Id, person: Id, ops: readonly Operation[]): Promise<void> {
    const mine = this.last.then(() => this.send(board, person, ops));
    this.last = mine.catch(() => undefined);
    return mine;
  }

  /**
   * Offers what earlier visits have left in this browser, and goes on until it has arrived.
   * @param except who is here just now: what they did goes by the lesson itself
   */
  async offerKept(except: Id | null): Promise<void> {
    this.again.unsubscribe();
    let stuck = 0;
    for (const { board, person, count } of keptByPeople()) {
      if (person === except) continue;
      try {
        const { PendingStore } = await lateBatchesCode();
        await this.offer(board, person, new PendingStore(board, person).load());
      } catch (error) {
        // Somebody else's, the tutor's perhaps: it goes where they come back.
        if (error instanceof ApiError && error.status === 404) continue;
        stuck += count;
      }
    }
    this.stuck.set(stuck);
    this.again.unsubscribe();
    if (stuck > 0) this.again = timer(AGAIN).subscribe(() => void this.offerKept(except));
    await this.load();
  }

  /** Has all here that is needed to offer something, for when the line is back but bad. */
  async prepare(): Promise<void> {
    await lateBatchesCode().catch(() => undefined);
  }

  /** Nobody looks any more. */
  rest(): void {
    this.again.unsubscribe();
  }

  /** Asks what became of them. Out of reach, what is known stays. */
  async load(): Promise<void> {
    const found = await firstValueFrom(this.api.call(listOwnLateLines)).catch(() => null);
    if (found) this.own.set(found.lessons);
  }

  /** What is said of them has been read. */
  async told(): Promise<void> {
    this.read.set(this.waiting());
    const isNews = this.own().some(({ added, left }) => added + left > 0);
    this.refused.set(0);
    if (!isNews) return;
    this.own.update((all) => all.map((one) => ({ ...one, added: 0, left: 0 })));
    await firstValueFrom(this.api.call(acknowledgeLateLines)).catch(() => undefined);
    await this.load();
  }

  private async send(board: Id, person: Id, ops: readonly Operation[]): Promise<void> {
    const { lateBatches, PendingStore } = await lateBatchesCode();
    const store = new PendingStore(board, person);
    for (const body of lateBatches(board, ops)) {
      const { waiting, kept, refused } = await firstValueFrom(
        this.api.call(offerLateLines, { params: { person }, body }),
      );
      this.refused.update((n) => n + refused.length);
      const done = [...waiting, ...kept, ...refused];
      for (const id of done) store.remove(id);
      this.done.next(done);
    }
    await this.load();
  }
}
