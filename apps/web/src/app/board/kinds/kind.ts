import type { Type } from '@angular/core';
import type { ItemSpec, ItemTraits, KindName, Point, SpecOf } from '@cuaderno/core';
import type { icons } from 'lucide';
import type { Tool, Tools } from '../tool/tool';
import type { Drawn } from './drawn';

/** A tool with which items of a kind are made. */
export interface KindTool {
  readonly tool: Tool;
  readonly label: string;
  /** By which it is taken in hand. */
  readonly key: string;
  readonly icon: (typeof icons)[keyof typeof icons];
}

type Loose<Spec> = Spec extends ItemSpec ? Omit<Spec, 'order'> : never;

/** An item that was drawn, without its place in the order. */
export type Laid = Loose<ItemSpec>;

/** What a component that shows what can be chosen for a kind is given. */
export interface KindOptions<Item = ItemSpec> {
  /** The item that is chosen, alone; `null` while the kind's tool is in hand. */
  readonly item: Item | null;
  /** Changes what is chosen. */
  readonly change: (to: ItemTraits) => void;
}

/**
 * All that the interface knows of a kind of item; its twin in the core says the rest. A kind says each of it, and the
 * register has every kind.
 */
export interface WebKind<Name extends KindName = KindName, Item = SpecOf<Name>> {
  /** Tools with which one is made; none for what comes in files. */
  readonly tools: readonly KindTool[];

  /** Its colour, where that can be chosen; `null` for a kind that has none. */
  readonly colour: ((item: Item) => string | null) | null;

  /** What changes about it when it is given another colour. */
  recoloured(item: Item, colour: string): ItemTraits;

  /** Whether width and height may change by themselves. */
  readonly stretches: boolean;

  /** What opens when it is touched by a tool that writes; `null` for what isn't written. */
  readonly editor: 'text' | 'formula' | null;

  /** What is laid where its tool has drawn so far; `null` while that is nothing yet, and for what isn't laid by drawing. */
  readonly lay: ((drawn: Drawn, tools: Tools) => Loose<Item> | null) | null;

  /**
   * How its tool changes one that lies there, by a touch or a drag from one place to another; `null` where a new one is laid
   * over it, and for kinds whose tools only lay new ones. What it gives is `null` where nothing changes.
   */
  readonly edit: ((item: Item) => ((from: Point, to: Point) => ItemTraits | null) | null) | null;

  /** Shown beside the tools while its tool is in hand, or one is chosen alone. Takes `KindOptions` as inputs. */
  readonly options: Type<KindOptions<unknown>> | null;
}

/** What most kinds have none of. */
export const PLAIN_KIND = {
  tools: [],
  colour: null,
  recoloured: (): ItemTraits => ({}),
  stretches: false,
  editor: null,
  lay: null,
  edit: null,
  options: null,
} as const;

/** The colour of a kind whose items are of one. */
export const ONE_COLOUR = {
  colour: (item: { readonly colour: string }): string => item.colour,
  recoloured: (_item: unknown, colour: string): ItemTraits => ({ colour }),
} as const;
