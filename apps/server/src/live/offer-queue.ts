import type { Actor, Id, Operation } from '@cuaderno/core';
import type { Member } from './member.js';

/** When and in which lesson something was made that is brought from elsewhere. */
export interface OfferOrigin {
  readonly at: number;
  readonly lesson: Id | null;
}

/** An operation that waits for its place. */
export interface Offer {
  readonly op: Operation;
  readonly origin?: OfferOrigin;
  readonly actor: () => Actor;
  /** Whom to tell; an import has nobody. */
  readonly from: Member | null;
  /** What has the same one is on disk together, or not at all. */
  readonly together?: object;
}

/** Something that must see the board between two commits. */
export type Job = () => Promise<void>;

/** What one window has offered, and how much of it had its turn. */
interface WaitingOffer {
  readonly offers: Offer[];
  next: number;
}

/** What was offered between two jobs, by who offered it; who is next stands first. */
interface BusyStretch {
  readonly waiting: Map<object, WaitingOffer>;
  job: Job | null;
}

/** What the server itself offers, one after the other. */
const SERVER = {};

/**
 * What waits to be done on a board. A job is done when all that was offered before it is; between jobs, anyone who offers
 * has one turn after the other, so that nobody waits for all of another's flood.
 */
export class OfferQueue {
  private readonly stretches: BusyStretch[] = [];

  get isEmpty(): boolean {
    return this.stretches.length === 0;
  }

  offer(offer: Offer): void {
    const { waiting } = this.last();
    const source = offer.together ?? offer.from ?? SERVER;
    const own = waiting.get(source);
    if (own) own.offers.push(offer);
    else waiting.set(source, { offers: [offer], next: 0 });
  }

  run(job: Job): void {
    this.last().job = job;
  }

  /** The next turn: one operation, or all that have to be together; `null` where a job is next, or nothing. */
  turn(): readonly Offer[] | null {
    const [stretch] = this.stretches;
    const next = stretch?.waiting.entries().next();
    if (!stretch || !next || next.done) return null;
    const [source, own] = next.value;
    // Anyone who has had a turn stands behind all others.
    stretch.waiting.delete(source);
    const offer = own.offers[own.next++]!;
    if (!offer.together && own.next < own.offers.length) stretch.waiting.set(source, own);
    if (stretch.waiting.size === 0 && !stretch.job) this.stretches.shift();
    return offer.together ? own.offers : [offer];
  }

  /** The job that is next, where nothing is before it. */
  job(): Job | null {
    const [stretch] = this.stretches;
    if (!stretch || stretch.waiting.size > 0) return null;
    this.stretches.shift();
    return stretch.job;
  }

  private last(): BusyStretch {
    let last = this.stretches.at(-1);
    if (!last || last.job) this.stretches.push((last = { waiting: new Map(), job: null }));
    return last;
  }
}
