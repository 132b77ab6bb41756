import { Directive, input } from '@angular/core';
import type { Type } from '@angular/core';
import type { Point } from '@cuaderno/core/geometry';
import type { InkName } from '@cuaderno/core/ink';
import type { ItemSpec, KindName, SpecOf } from '@cuaderno/core/kinds';
import type { ItemTraits } from '@cuaderno/core/ops';
import type { icons } from 'lucide';
import type { Tool, Tools } from '../tool/tool';
import type { TextMark } from '../../ui/rich-text/text-marks';
import type { Drawn } from './drawn';
import type { NextStyle } from './next-style';
import type { TextDraft } from './text/laid-out';
import type { TextStyle } from './text/style';

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

/** Says of an item what is to change about it. */
export type TraitsOf<Item = ItemSpec> = (item: Item) => ItemTraits;

/** Words that are being written on the page just now, or a formula. */
export interface Written {
  /** What is known of the text; `null` while it is a formula. */
  readonly text: TextDraft | null;
  /** What is written, and the next of its kind, look like this from now on. */
  restyle(to: Partial<TextStyle>): void;
  /** Marks the words that are chosen in it, or those that are written next. */
  mark(mark: TextMark): void;
}

/** What a component that shows what can be chosen for a kind is given. */
@Directive()
export abstract class KindOptions<Item = ItemSpec> {
  /** The tool in hand. */
  readonly tool = input<Tool>('select');
  /** Those of the kind that are chosen, the first standing for all; none while the kind's tool is in hand. */
  readonly items = input<readonly Item[]>([]);
  /** What is being written just now. */
  readonly written = input<Written | null>(null);
  /** Changes what is chosen. */
  readonly change = input<(to: TraitsOf<Item>) => void>(() => undefined);
}

/** What the inks and widths beside the tools say of the next item of a kind. */
interface Drawing {
  readonly ink: InkName;
  /** Of its lines, in points. */
  readonly width?: number;
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

  /** What the next one is drawn in; `null` for a kind that is drawn in the pen's ink, or has none. */
  readonly next: NextStyle<Drawing & object> | null;

  /** How broad its lines are, in points, and what changes when that does; `null` for a kind that has no such lines. */
  readonly lines: {
    width(item: Item): number | null;
    widened(item: Item, width: number): ItemTraits;
  } | null;

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

  /** Shown beside the tools while its tool is in hand, while one is written, and where some of its kind are chosen. */
  readonly options: Type<KindOptions<Item>> | null;
}

/** What most kinds have none of. */
export const PLAIN_KIND = {
  tools: [],
  colour: null,
  recoloured: (): ItemTraits => ({}),
  next: null,
  lines: null,
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
