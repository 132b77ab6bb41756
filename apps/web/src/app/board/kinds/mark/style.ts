import { InkName, MarkSpec } from '@cuaderno/core';
import * as z from 'zod';
import { NextStyle } from '../next-style';

const Style = z.object({ mark: MarkSpec.shape.mark, ink: InkName });

/** How the next mark will be. */
export const markStyle = new NextStyle<z.infer<typeof Style>>('mark', Style, {
  ...{ mark: 'tick', ink: 'poppy' },
});
