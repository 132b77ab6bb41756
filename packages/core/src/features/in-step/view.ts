import * as z from 'zod';
import { Id } from '../../id/index.js';

const place = z.number().min(-1e6).max(1e6);
const length = z.number().positive().max(1e6);

/**
 * What a window shows: a part of the board, told from the page in its middle, in points from that page's
 * top left corner. It may reach beyond the page. Any other window can show the same, whatever its shape.
 */
export const View = z.strictObject({ page: Id, x: place, y: place, width: length, height: length });
export type View = z.infer<typeof View>;

/** Of a window, in CSS px. */
export const WindowSize = z.strictObject({
  width: z.number().min(1).max(100_000),
  height: z.number().min(1).max(100_000),
});
export type WindowSize = z.infer<typeof WindowSize>;
