import type { Id } from '../id/index.js';
import type { Stretch } from './pace.js';
import type { ReplayEvent } from './events.js';

/** What one person did closer together than this is one stretch of work, in ms. */
export const TOGETHER = 4000;

/**
 * When each person worked on the board, in order of time: lines and all else they did, joined where hardly
 * any time lies between.
 */
export function lanesOf(events: readonly ReplayEvent[]): ReadonlyMap<Id, readonly Stretch[]> {
  const lanes = new Map<Id, { from: number; to: number }[]>();
  for (const { by, from, to } of [...events].sort((a, b) => a.from - b.from)) {
    const lane = lanes.get(by) ?? [];
    lanes.set(by, lane);
    const last = lane.at(-1);
    if (last && from - last.to <= TOGETHER) last.to = Math.max(last.to, to);
    else lane.push({ from, to });
  }
  return lanes;
}

/** For how long each person's pen was on a page, in ms: lines that two drew at once count for both. */
export function penDown(events: readonly ReplayEvent[]): ReadonlyMap<Id, number> {
  const times = new Map<Id, number>();
  for (const { by, kind, from, to } of events)
    if (kind === 'ink.add') times.set(by, (times.get(by) ?? 0) + to - from);
  return times;
}
