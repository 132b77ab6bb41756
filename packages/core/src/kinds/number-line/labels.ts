import { fractionOf } from './fraction.js';
import type { NumberLabels } from './spec.js';

/** Most places behind the point that are written. */
const MOST_PLACES = 6;
/** Numbers nearer to one another than this, in parts of a step, are the same. */
export const SAME = 1e-6;

export const MINUS = '−';

/** How many places behind the point a number needs. */
export function placesOf(value: number): number {
  for (let places = 0; places < MOST_PLACES; places++)
    if (Math.abs(value - Number(value.toFixed(places))) < 1e-9 * Math.max(1, Math.abs(value)))
      return places;
  return MOST_PLACES;
}

/** A number as people write it: with a minus sign, and no more places than it needs, but at least so many. */
export function decimal(value: number, places = 0): string {
  const text = Math.abs(value).toFixed(Math.max(places, placesOf(value)));
  return value < 0 && Number(text) !== 0 ? MINUS + text : text;
}

/** What stands at a tick: nothing, a number, or a fraction as numerator over denominator. */
export type TickLabel =
  | null
  | { readonly text: string }
  | { readonly minus: boolean; readonly numerator: string; readonly denominator: string };

/** @param step by which the places of decimals are known, so that all labels have as many */
export function tickLabel(value: number, labels: NumberLabels, step: number): TickLabel {
  const whole = Math.abs(value - Math.round(value)) < SAME * Math.min(1, step);
  if (labels === 'none' || (labels === 'whole' && !whole)) return null;
  if (whole && labels !== 'decimal') return { text: decimal(Math.round(value)) };
  if (labels === 'decimal') return { text: decimal(value, placesOf(step)) };
  const fraction = fractionOf(value);
  if (!fraction) return { text: decimal(value) };
  return {
    minus: fraction.numerator < 0,
    numerator: String(Math.abs(fraction.numerator)),
    denominator: String(fraction.denominator),
  };
}

/** A number as it is said and found: a fraction with a stroke. */
export function numberWords(value: number, labels: NumberLabels): string {
  if (labels === 'fraction') {
    const fraction = fractionOf(value);
    if (fraction && fraction.denominator > 1)
      return `${fraction.numerator < 0 ? MINUS : ''}${Math.abs(fraction.numerator)}/${fraction.denominator}`;
  }
  return decimal(value);
}
