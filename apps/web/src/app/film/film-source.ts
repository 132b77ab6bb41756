import { filmLength, Pace } from '@cuaderno/core/replay';
import type { Deed } from '@cuaderno/core/replay';
import type { FilmTask } from './film-task';

/** All that a film of a lesson is made of. */
export interface FilmSource extends Pick<
  FilmTask,
  'log' | 'whole' | 'beside' | 'turns' | 'people'
> {
  readonly deeds: readonly Deed[];
}

/** How long the film will be, in ms. */
export function lengthOfFilm(
  { whole, deeds, beside }: Pick<FilmSource, 'whole' | 'deeds' | 'beside'>,
  { speed, skipsIdle }: Pick<FilmTask, 'speed' | 'skipsIdle'>,
): number {
  const pace = skipsIdle ? Pace.skippingIdle(whole, [...deeds, ...beside]) : Pace.even(whole);
  return filmLength(pace, { speed });
}
