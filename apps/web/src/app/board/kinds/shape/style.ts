import { InkName } from '@cuaderno/core/ink';
import { ShapeSpec } from '@cuaderno/core/kinds';
import * as z from 'zod';
import { NextStyle } from '../next-style';

/** A shape as it is chosen: a line with heads is an arrow. */
export type ShapeChoice = 'line' | 'arrow' | 'arrows' | Exclude<ShapeSpec['shape'], 'line'>;

const CHOICES: ReadonlySet<unknown> = new Set<ShapeChoice>([
  ...(['line', 'arrow', 'arrows'] as const),
  ...ShapeSpec.shape.shape.options.filter((shape) => shape !== 'line'),
]);

const Style = z.object({
  shape: z.custom<ShapeChoice>((name) => CHOICES.has(name)),
  ink: InkName,
  /** Of the outline, in points. */
  width: z.number().positive().max(200),
  filled: z.boolean(),
  dashed: z.boolean(),
});
export type ShapeStyle = z.infer<typeof Style>;

/** How the next shape will be. */
export const shapeStyle = new NextStyle<ShapeStyle>('shape', Style, {
  ...{ shape: 'arrow', ink: 'poppy', width: 2.4, filled: false, dashed: false },
});
