import * as z from 'zod';
import { ImageFiles, Texts } from '../display/index.js';
import type { DisplaySink, DisplayText } from '../display/index.js';
import type { Frame, Point } from '../geometry/index.js';
import type { FileHash } from '../id/index.js';
import { COMMON_DEFAULTS } from './common.js';
import { cover } from './cover/index.js';
import { formula } from './formula/index.js';
import type { ItemKind } from './kind.js';
import { mark } from './mark/index.js';
import { media } from './media/index.js';
import { numberLine } from './number-line/index.js';
import { picture } from './picture/index.js';
import { shape } from './shape/index.js';
import { text } from './text/index.js';

/** Every kind of item that is laid on a page, by its name: everything on it but ink and paper. */
const KINDS = {
  ...{ picture, shape, mark, text, formula, media, cover },
  'number-line': numberLine,
} as const;

export type KindName = keyof typeof KINDS;

/** What an item is, without what the log knows of it. */
export type ItemSpec = { [Name in KindName]: z.infer<(typeof KINDS)[Name]['schema']> }[KindName];

/** What one kind of item is. */
export type SpecOf<Name extends KindName> = Extract<ItemSpec, { kind: Name }>;

export const KIND_NAMES = Object.keys(KINDS) as KindName[];

/** The schemas of all kinds, as objects: for those that are made of them. */
export const KIND_SCHEMAS: readonly z.ZodObject[] = KIND_NAMES.map((name) => KINDS[name].schema);

export const ItemSpec = z.discriminatedUnion(
  'kind',
  KIND_SCHEMAS as never,
) as unknown as z.ZodType<ItemSpec>;

type AnyKind = ItemKind<z.ZodObject, ItemSpec>;

function kindOf({ kind }: Pick<ItemSpec, 'kind'>): AnyKind {
  return KINDS[kind] as unknown as AnyKind;
}

/** What it looks like on its page. */
export function drawItem(item: ItemSpec, sink: DisplaySink): void {
  kindOf(item).draw(item, sink);
}

/** Whether a touch at `p` means this item: on it, or nearer than `slack` points. */
export function isItemAt(item: ItemSpec, p: Point, slack: number): boolean {
  return kindOf(item).isAt(item, p, slack);
}

/** Whether an eraser of `radius` points, moved from `a` to `b`, touched the item. */
export function isItemTouched(item: ItemSpec, a: Point, b: Point, radius: number): boolean {
  return kindOf(item).isTouched(item, a, b, radius);
}

/** Points by which it is known whether something that is drawn around the item has it inside. */
export function outlinePoints(item: ItemSpec): readonly Point[] {
  return kindOf(item).points(item);
}

/** What changes about an item when it is moved, sized or turned into this frame, the frame included. */
export function placeTraits(item: ItemSpec, frame: Frame): Partial<ItemSpec> {
  return kindOf(item).place(item, frame);
}

/** Words that are found on an item; empty for none. */
export function wordsOf(item: ItemSpec): string {
  return kindOf(item).words(item);
}

/** What an item is, in a few words for who can't see it. */
export function spokenItem(item: ItemSpec): string {
  return kindOf(item).spoken(item);
}

/** Stored files that an item is made of. */
export function filesOf(item: ItemSpec): readonly FileHash[] {
  return kindOf(item).files(item);
}

/** Those of them that it is drawn with. */
export function picturesOf(item: ItemSpec): readonly FileHash[] {
  if (filesOf(item).length === 0) return [];
  const images = new ImageFiles();
  drawItem(item, images);
  return [...images.found];
}

/** The words that it is drawn with, in their fonts. */
export function textsOf(item: ItemSpec): readonly DisplayText[] {
  const texts = new Texts();
  drawItem(item, texts);
  return texts.found;
}

/** Whether a student with a pen may lay such an item with what is written. */
export function isWritingKind(item: Pick<ItemSpec, 'kind'>): boolean {
  return kindOf(item).isWriting;
}

/** What an item has where it says nothing of it; ink, which is of no kind here, has what all have. */
export function defaultsOf({
  kind,
}: {
  readonly kind: KindName | 'ink';
}): Readonly<Record<string, unknown>> {
  return kind === 'ink' ? COMMON_DEFAULTS : { ...COMMON_DEFAULTS, ...kindOf({ kind }).defaults };
}

/** Names of what may be said of such an item, and changed about it. */
export function traitNames(kind: KindName): readonly string[] {
  const { schema, lasting } = kindOf({ kind });
  const all: readonly string[] = ['kind', 'layer', ...lasting];
  return Object.keys(schema.shape).filter((name) => !all.includes(name));
}
