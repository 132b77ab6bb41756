import type { Interval, MarkedPoint, NumberLineSpec } from './spec.js';
import { MAX_MARKED } from './spec.js';

/** What is marked on a number line; a change of it is a change of one of these. */
export type Marked = Pick<NumberLineSpec, 'points' | 'jumps' | 'intervals'>;

/** What a touch puts on the line, or a drag from one number to another. */
export type Marking = 'point' | 'open-point' | 'jump' | 'interval' | 'open-interval';

/**
 * The line with something more marked on it; with it gone, where just that was there; `null` where nothing changes.
 * @param to where a drag ended; the same as `from` for a touch
 */
export function withMarked(
  line: NumberLineSpec,
  marking: Marking,
  from: number,
  to: number,
): Partial<Marked> | null {
  if (marking === 'point' || marking === 'open-point') {
    const point = { at: to, open: marking === 'open-point' };
    return changed(
      'points',
      line.points,
      point,
      (a, b) => a.at === b.at,
      from === to ? null : from,
    );
  }
  if (from === to) return null;
  if (marking === 'jump') {
    const jump = { from, to };
    return changed('jumps', line.jumps, jump, (a, b) => a.from === b.from && a.to === b.to, null);
  }
  const open = marking === 'open-interval';
  const interval = {
    ...{ from: Math.min(from, to), to: Math.max(from, to) },
    ...{ openFrom: open, openTo: open },
  };
  const same = (a: Interval, b: Interval): boolean => a.from === b.from && a.to === b.to;
  return changed('intervals', line.intervals, interval, same, null);
}

type ListOf<Name extends keyof Marked> = Marked[Name][number];

/** @param moved the number from which a point was carried away */
function changed<Name extends keyof Marked>(
  name: Name,
  list: readonly ListOf<Name>[],
  more: ListOf<Name>,
  same: (a: ListOf<Name>, b: ListOf<Name>) => boolean,
  moved: number | null,
): Partial<Marked> | null {
  const there = list.find((one) => same(one, more));
  const equal = there !== undefined && JSON.stringify(there) === JSON.stringify(more);
  const carried = moved !== null ? list.find((one) => 'at' in one && one.at === moved) : undefined;
  const rest = list.filter((one) => one !== there && one !== carried);
  if (carried) return { [name]: [...rest, { ...carried, at: (more as MarkedPoint).at }] };
  if (equal) return { [name]: rest };
  return rest.length < MAX_MARKED ? { [name]: [...rest, more] } : null;
}

export function hasMarks({ points, jumps, intervals }: Marked): boolean {
  return points.length + jumps.length + intervals.length > 0;
}
