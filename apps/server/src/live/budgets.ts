import type { Id, Role } from '@cuaderno/core';
import { Budget } from './allowance.js';

/** For long a second, and at once: of anyone who came by the door. */
const STUDENTS_BYTES = [100_000, 1_000_000] as const;
const STUDENTS_WORK = [150, 300] as const;

/**
 * Bytes that one person may send, all windows together: a second for long, and at once. A pen that never rests sends
 * some 2,000 a second; who comes back after an hour without a line has a megabyte or two to send.
 */
const BYTES: Record<Role, readonly [rate: number, burst: number]> = {
  ...{ watcher: STUDENTS_BYTES, student: STUDENTS_BYTES, helper: STUDENTS_BYTES },
  tutor: [1_000_000, 10_000_000],
};
/**
 * For how long the server may be busy with one person, in ms: of a second for long, and at once. A tutor may have a
 * dozen windows, and in the first second after a start all takes ten times as long.
 */
const WORK: Record<Role, readonly [rate: number, burst: number]> = {
  ...{ watcher: STUDENTS_WORK, student: STUDENTS_WORK, helper: STUDENTS_WORK },
  tutor: [500, 1_000],
};
/** Longest that a window's messages wait, in ms. */
const LONGEST = 5_000;

/** A window whose messages can be made to wait. */
export interface Resting {
  /** Its messages are read on after so many ms: none is lost. */
  rest(ms: number): void;
}

/** What the messages of one person may cost everyone else, all their windows together. */
export class Spending {
  readonly windows = new Set<Resting>();
  private readonly bytes: Budget;
  private readonly work: Budget;

  constructor(role: Role) {
    this.bytes = new Budget(...BYTES[role]);
    this.work = new Budget(...WORK[role]);
  }

  /**
   * Where that was more than their share, all of their windows wait until it is even again.
   * @param ms for which the server was busy with them
   */
  spend(bytes: number, ms: number): void {
    const wait = Math.min(LONGEST, Math.max(this.bytes.spend(bytes), this.work.spend(ms)));
    if (wait > 0) for (const window of this.windows) window.rest(wait);
  }
}

/** What everyone has spent, whichever windows they have. */
export class Budgets {
  private readonly known = new Map<Id, Spending>();

  open(person: Id, role: Role, window: Resting): Spending {
    let spending = this.known.get(person);
    if (!spending) this.known.set(person, (spending = new Spending(role)));
    spending.windows.add(window);
    return spending;
  }

  /** How many windows they have. */
  windowsOf(person: Id): number {
    return this.known.get(person)?.windows.size ?? 0;
  }

  /** A window has gone. What was spent is remembered a while: coming anew is no way to spend more. */
  close(person: Id, window: Resting): void {
    const spending = this.known.get(person);
    spending?.windows.delete(window);
    if (!spending || spending.windows.size > 0) return;
    setTimeout(() => {
      if (spending.windows.size === 0) this.known.delete(person);
    }, 60_000).unref();
  }
}
