import * as z from 'zod';
import { Id } from '../../id/index.js';

const place = z.number().min(-1e6).max(1e6);
const length = z.number().positive().max(1e6);

/** A place on a page, in points from its top left corner. */
export const Place = z.strictObject({ page: Id, x: place, y: place });
export type Place = z.infer<typeof Place>;

/** The lamp: lights one place of a page, in points, and dims the rest of it for all. */
export const Lamp = z.strictObject({
  page: Id,
  shape: z.enum(['round', 'box']),
  x: place,
  y: place,
  width: length,
  height: length,
});
export type Lamp = z.infer<typeof Lamp>;

/** An arrow that somebody has left standing on a page: its tip is at the place. */
export const Arrow = Place.extend({ board: Id, by: Id });
export type Arrow = z.infer<typeof Arrow>;

/** The lamp, where it is. */
export const LitLamp = Lamp.extend({ board: Id });
export type LitLamp = z.infer<typeof LitLamp>;

/** What is shown on the pages of a lesson's boards just now and is on none of them. */
export const Overlay = z.strictObject({ arrows: z.array(Arrow), lamp: LitLamp.nullable() });
export type Overlay = z.infer<typeof Overlay>;
