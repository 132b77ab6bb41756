import { filmLength, Pace } from '@cuaderno/core/replay';
import type { ReplayEvent } from '@cuaderno/core/replay';
import type { FilmTask } from './film-task';

/** All that a film of a lesson is made of. */
export interface FilmSource extends Pick<
  FilmTask,
  'log' | 'whole' | 'beside' | 'turns' | 'people'
> {
  readonly events: readonly ReplayEvent[];
}

/** How long the film will be, in ms. */
export function lengthOfFilm(
  { whole, events, beside }: Pick<FilmSource, 'whole' | 'events' | 'beside'>,
  { speed, skipsIdle }: Pick<FilmTask, 'speed' | 'skipsIdle'>,
): number {
  const pace = skipsIdle ? Pace.skippingIdle(whole, [...events, ...beside]) : Pace.even(whole);
  return filmLength(pace, { speed });
}
