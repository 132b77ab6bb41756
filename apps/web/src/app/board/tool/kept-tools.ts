import { Lamp } from '@cuaderno/core/features';
import { HighlightName, InkName } from '@cuaderno/core/ink';
import { KIND_NAMES } from '@cuaderno/core/kinds';
import * as z from 'zod';
import { lasting, remember } from '../../browser/storage';
import { FIRST_PRESETS } from './presets';
import type { Tool } from './tool';

/*
 * What this browser kept of the tools in hand. It may be of an earlier build, or whatever somebody put there: of what
 * isn't as it should be nothing is taken, and of all else everything.
 */

const KEY = 'cuaderno.tools';

const TOOLS: ReadonlySet<unknown> = new Set<Tool>([
  ...(['hand', 'pen', 'highlighter', 'eraser', 'select', 'slip', 'pointer', 'lamp'] as const),
  ...KIND_NAMES.filter((kind) => kind !== 'picture' && kind !== 'media' && kind !== 'cover'),
]);
/** In points. */
const width = z.number().positive().max(200);
const pen = z.object({ ink: InkName, width });
const highlighter = z.object({ ink: HighlightName, width });

const FIELDS = {
  tool: z.custom<Tool>((name) => TOOLS.has(name)),
  pen,
  highlighter,
  lasso: z.boolean(),
  rubs: z.boolean(),
  leavesArrow: z.boolean(),
  lamp: Lamp.shape.shape,
  /** Own pens; as many as there are places for them. */
  presets: z
    .array(
      z.discriminatedUnion('tool', [
        pen.extend({ tool: z.literal('pen') }),
        highlighter.extend({ tool: z.literal('highlighter') }),
      ]),
    )
    .length(FIRST_PRESETS.length),
  side: z.enum(['left', 'right']),
  /** The lesson in which these tools were in hand. */
  lesson: z.string().max(100).nullable(),
};

export type KeptTools = z.infer<z.ZodObject<typeof FIELDS>>;

export function keptTools(): Partial<KeptTools> {
  const kept = objectIn(lasting.getItem(KEY));
  const read = Object.entries(FIELDS).flatMap(([name, schema]) => {
    const { success, data } = schema.safeParse(kept[name]);
    return success ? [[name, data] as const] : [];
  });
  return Object.fromEntries(read);
}

export function keepTools(tools: KeptTools): void {
  remember(lasting, KEY, JSON.stringify(tools));
}

function objectIn(text: string | null): Readonly<Record<string, unknown>> {
  try {
    return z.record(z.string(), z.unknown()).parse(JSON.parse(text ?? '{}'));
  } catch {
    return {};
  }
}
