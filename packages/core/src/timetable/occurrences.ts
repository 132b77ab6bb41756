import { DateTime } from 'luxon';
import type { Occurrence, Plan, WallTime } from './plan.js';
import { timesOf } from './rule.js';

const DAY = 86_400_000;
/** A lesson may be planned for another day, but hardly for another year. */
const FARTHEST_MOVE = 400 * DAY;

/**
 * The moment of a time on the wall, in ms since 1970. A time that the clocks jump over is as long after the jump as
 * it would be after midnight; of one that comes twice it is the first (RFC 5545, 3.3.5).
 */
export function momentOf(time: WallTime, zone: string): number {
  const at = DateTime.fromISO(time, { zone });
  const [first] = at.getPossibleOffsets();
  return (first ?? at).toMillis();
}

/** Lessons of a plan that are on between two moments, in the order of time; cancelled ones too. */
export function occurrencesOf(plan: Plan, from: number, to: number): Occurrence[] {
  const { start, zone, minutes, rule, changes } = plan;
  const changed = new Map(changes.map((change) => [change.was, change] as const));
  const length = minutes * 60_000;
  const all: Occurrence[] = [];
  const add = (was: WallTime): void => {
    const change = changed.get(was);
    const at = momentOf(change?.now ?? was, zone);
    if (at + length <= from || at >= to) return;
    const state = !change ? 'planned' : change.now === null ? 'cancelled' : 'moved';
    all.push({ plan, was, at, until: at + length, state, why: change?.why ?? '' });
  };
  if (rule === null) {
    add(start);
    return all;
  }
  const reach = changes.some(({ now }) => now !== null) ? FARTHEST_MOVE : DAY;
  timesOf(
    start,
    rule,
    (time) => {
      const rough = Date.parse(`${time}Z`);
      if (rough > to + reach) return 'stop';
      if (rough >= from - reach) add(time);
      return 'skip';
    },
    from - reach,
  );
  return all.sort((a, b) => a.at - b.at);
}

/** How far is looked for the next lesson at first, in ms: mostly it is there. */
const NEAR = 15 * DAY;

/** The lesson that comes next, or is going on; `null` where none is planned any more. */
export function nextOf(
  plans: readonly Plan[],
  now: number,
  within = FARTHEST_MOVE,
): Occurrence | null {
  for (const far of [Math.min(NEAR, within), within]) {
    let first: Occurrence | null = null;
    for (const plan of plans)
      for (const one of occurrencesOf(plan, now, now + far))
        if (one.state !== 'cancelled' && (!first || one.at < first.at)) first = one;
    if (first || far === within) return first;
  }
  return null;
}

/** Two lessons that one tutor can't give as they are planned. */
export interface Clash {
  readonly first: Occurrence;
  readonly second: Occurrence;
  /** They are at the same time; or the second begins in what is kept free after the first. */
  readonly how: 'overlap' | 'tight';
}

/** Clashes that are told at most: anyone who has more knows that there are too many. */
export const MOST_CLASHES = 200;

/** Lessons that get in each other's way, in the order of time; the first of them where there are very many. */
export function clashesAmong(list: readonly Occurrence[]): Clash[] {
  const held = list.filter(({ state }) => state !== 'cancelled').sort((a, b) => a.at - b.at);
  const clashes: Clash[] = [];
  for (const [i, first] of held.entries())
    for (let n = i + 1; n < held.length; n++) {
      const second = held[n]!;
      if (second.at >= first.until + first.plan.buffer * 60_000) break;
      clashes.push({ first, second, how: second.at < first.until ? 'overlap' : 'tight' });
      if (clashes.length === MOST_CLASHES) return clashes;
    }
  return clashes;
}
