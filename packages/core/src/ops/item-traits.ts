import * as z from 'zod';
import { ThingSpec } from '../material/index.js';
import { InkBytes } from './ink-bytes.js';

/** What nobody changes about a thing: it would be another. */
const LASTING = ['kind', 'layer', 'file', 'poster'] as const;
type Lasting = (typeof LASTING)[number];

type TraitName = Exclude<
  ThingSpec extends infer T ? (T extends T ? keyof T : never) : never,
  Lasting
>;
type TraitOf<Name, Thing = ThingSpec> = Thing extends Thing
  ? Name extends keyof Thing
    ? Thing[Name]
    : never
  : never;

/**
 * Some of what an item is: where a thing lies, how it looks, what it says; a line's ink. What one kind has is for that
 * kind: see `refuse` of `item.change`.
 */
export type ItemTraits = { [Name in TraitName]?: TraitOf<Name> | undefined } & {
  ink?: Uint8Array | undefined;
};

/** Each trait as the kinds that have it say it; nothing else can be said of an item. */
function shapeOfAll(): Record<string, z.ZodType> {
  const schemas = new Map<string, Set<z.ZodType>>();
  for (const { shape } of ThingSpec.options)
    for (const [name, schema] of Object.entries(shape as Record<string, z.ZodType>)) {
      if ((LASTING as readonly string[]).includes(name)) continue;
      schemas.set(name, (schemas.get(name) ?? new Set()).add(schema));
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
