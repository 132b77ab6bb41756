import type { Id } from '../id/index.js';
import { countWhile } from './halving.js';
import type { Moment } from './replay.js';

/** Somebody turned to a page. @property at in ms since 1970 */
export interface Turn {
  readonly page: Id;
  readonly at: number;
}

/**
 * The page that a replay shows at a moment: the one on which something happened last, or to which its leader turned,
 * whichever was later; `null` before either.
 * @param turns in the order of time
 */
export function pageInView(
  { last }: Pick<Moment, 'last'>,
  turns: readonly Turn[],
  time: number,
): Id | null {
  const turned = turns[countWhile(turns, ({ at }) => at <= time) - 1];
  return turned && turned.at > (last?.at ?? 0) ? turned.page : (last?.page ?? null);
}
