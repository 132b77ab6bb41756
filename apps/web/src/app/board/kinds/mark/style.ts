import { InkName } from '@cuaderno/core/ink';
import { MarkSpec } from '@cuaderno/core/kinds';
import * as z from 'zod';
import { NextStyle } from '../next-style';

const Style = z.object({ mark: MarkSpec.shape.mark, ink: InkName });

/** How the next mark will be. */
export const markStyle = new NextStyle<z.infer<typeof Style>>('mark', Style, {
  ...{ mark: 'tick', ink: 'poppy' },
});
