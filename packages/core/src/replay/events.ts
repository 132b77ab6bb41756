import type { Id } from '../id/index.js';
import { decodeStroke } from '../ink/index.js';
import type { KeptEntry } from '../log/index.js';
import type { Stretch } from './pace.js';

/** What somebody did, and how long it took. */
export interface ReplayEvent extends Stretch {
  readonly by: Id;
  readonly page: Id | null;
  readonly kind: KeptEntry['op']['kind'];
}

/**
 * What was done, in the order of the log. None is over before the one before it, whatever the server's clock
 * did; a line began when its pen came down.
 */
export function replayEventsOf(entries: readonly KeptEntry[]): ReplayEvent[] {
  let now = -Infinity;
  return entries.map(({ at, by, op }) => {
    now = Math.max(now, at);
    const took = op.kind === 'ink.add' ? tookFor(op.ink) : 0;
    const page = 'page' in op ? op.page : null;
    return { by, page, kind: op.kind, from: now - took, to: now };
  });
}

/** How long a line took, in ms. */
function tookFor(ink: Uint8Array): number {
  const { points } = decodeStroke(ink);
  return points.at(-1)!.time - points[0]!.time;
}
