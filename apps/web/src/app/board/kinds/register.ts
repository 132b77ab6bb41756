import type { Item, PlacedItem } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { ItemSpec, KindName } from '@cuaderno/core/kinds';
import type { ItemTraits } from '@cuaderno/core/ops';
import type { Tool, Tools } from '../tool/tool';
import { cover } from './cover';
import type { Drawn } from './drawn';
import { formula } from './formula';
import type { KindTool, Laid, WebKind } from './kind';
import { mark } from './mark';
import { media } from './media';
import { numberLine } from './number-line';
import { picture } from './picture';
import { shape } from './shape';
import { text } from './text';

/** Every kind of item; the compiler asks for those of the core that are missing. Tools stand in this order. */
const KINDS: { readonly [Name in KindName]: WebKind<Name> } = {
  shape,
  mark,
  text,
  formula,
  'number-line': numberLine,
  picture,
  media,
  cover,
};

type AnyWebKind = WebKind<KindName, ItemSpec>;

function kindOf(name: KindName): AnyWebKind {
  return KINDS[name] as unknown as AnyWebKind;
}

/** Tools that make items. */
export const KIND_TOOLS: readonly KindTool[] = Object.values(KINDS).flatMap(({ tools }) => tools);

/** The kind that is made with a tool. */
const kindsByTool = new Map<Tool, KindName>(
  (Object.entries(KINDS) as [KindName, WebKind][]).flatMap(([name, { tools }]) =>
    tools.map(({ tool }) => [tool, name] as const),
  ),
);

export function kindOfTool(tool: Tool): AnyWebKind | null {
  const name = kindsByTool.get(tool);
  return name ? kindOf(name) : null;
}

/** What is laid where the tool in hand has drawn so far. */
export function layingBy(tools: Tools): (drawn: Drawn) => Laid | null {
  return (drawn) => kindOfTool(tools.tool())?.lay?.(drawn, tools) ?? null;
}

/** How a tool changes an item that lies there; `null` where it lays a new one over it. */
export function editBy(
  tool: Tool,
  item: Item,
): ((from: Point, to: Point) => ItemTraits | null) | null {
  if (item.kind === 'ink' || kindsByTool.get(tool) !== item.kind) return null;
  return kindOf(item.kind).edit?.(item) ?? null;
}

/** Whether an item has a colour that can be chosen. */
export function hasColour(item: Item): boolean {
  return item.kind !== 'ink' && kindOf(item.kind).colour !== null;
}

/** The colour of an item; `null` where it has none that can be chosen. */
export function colourOf(item: Item): string | null {
  return item.kind === 'ink' ? null : (kindOf(item.kind).colour?.(item) ?? null);
}

/** What changes about an item when it is given another colour. */
export function recoloured(item: Item, colour: string): ItemTraits {
  return item.kind === 'ink' ? {} : kindOf(item.kind).recoloured(item, colour);
}

/** Whether its width and height may change by themselves. Ink may. */
export function mayStretch(item: Item): boolean {
  return item.kind === 'ink' || kindOf(item.kind).stretches;
}

/** How broad the lines of an item are, in points; `null` where it has none that can be chosen. */
export function lineWidthOf(item: Item): number | null {
  return item.kind === 'ink' ? null : (kindOf(item.kind).lines?.width(item) ?? null);
}

/** What changes about an item when its lines become broader or finer. */
export function widened(item: Item, width: number): ItemTraits {
  return item.kind === 'ink' ? {} : (kindOf(item.kind).lines?.widened(item, width) ?? {});
}

/** What opens when an item is touched by a tool that writes. */
export function editorOf(item: Item): 'text' | 'formula' | null {
  return item.kind === 'ink' ? null : kindOf(item.kind).editor;
}

/** Whether it is written in letters, and can be opened to write on. */
export function hasEditor(item: Item): item is PlacedItem {
  return editorOf(item) !== null;
}

/** What is shown beside the tools of the kinds that are chosen, each with its items; what is fixed is left out. */
export function optionsOf(chosen: readonly Item[]): readonly ChosenOptions[] {
  const loose = chosen.filter((item) => item.kind !== 'ink' && !item.fixed) as PlacedItem[];
  return [...new Set(loose.map(({ kind }) => kind))].flatMap((name) => {
    const { options } = kindOf(name);
    const items = loose.filter(({ kind }) => kind === name);
    return options ? [{ options, items }] : [];
  });
}

export interface ChosenOptions {
  readonly options: NonNullable<AnyWebKind['options']>;
  readonly items: readonly PlacedItem[];
}
