import * as z from 'zod';
import { KIND_SCHEMAS, traitNames } from '../kinds/index.js';
import type { ItemSpec, KindName } from '../kinds/index.js';
import { InkBytes } from './ink-bytes.js';

/** What makes an item what it is and is no trait of it; see also `lasting` of its kind. */
type Lasting = 'kind' | 'layer';

type TraitName = Exclude<
  ItemSpec extends infer T ? (T extends T ? keyof T : never) : never,
  Lasting
>;
type TraitOf<Name, Item = ItemSpec> = Item extends Item
  ? Name extends keyof Item
    ? Item[Name]
    : never
  : never;

/**
 * Some of what an item is: where it lies, how it looks, what it says; a line's ink. What one kind has is for that kind:
 * see `refuse` of `item.change`.
 */
export type ItemTraits = { [Name in TraitName]?: TraitOf<Name> | undefined } & {
  ink?: Uint8Array | undefined;
};

/** Each trait as the kinds that have it say it; nothing else can be said of an item. */
function shapeOfAll(): Record<string, z.ZodType> {
  const schemas = new Map<string, Set<z.ZodType>>();
  for (const { shape } of KIND_SCHEMAS) {
    const kind = (shape['kind'] as z.ZodLiteral).def.values[0] as KindName;
    for (const name of traitNames(kind))
      schemas.set(name, (schemas.get(name) ?? new Set()).add(shape[name] as z.ZodType));
  }
  return Object.fromEntries(
    [...schemas].map(([name, [first, ...others]]) => [
      name,
      (others.length > 0 ? z.union([first!, ...others]) : first!).optional(),
    ]),
  );
}

export const ItemTraits: z.ZodType<ItemTraits> = z.strictObject({
  ...shapeOfAll(),
  ink: InkBytes.optional(),
});
