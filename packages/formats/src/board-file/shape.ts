import { BoardWriter } from '@cuaderno/contract/board-writer';
import {
  decodeStroke,
  encodeStroke,
  FileHash,
  HIGHLIGHTS,
  Id,
  INKS,
  isMaterial,
  itemsOn,
  KIND_SCHEMAS,
  pagesInOrder,
  PageSpec,
  Sheet,
  specOf,
  STORED_VERSION,
} from '@cuaderno/core';
import type { Board, InkItem, Item, Page, Stroke } from '@cuaderno/core';
import * as z from 'zod';

/** What `board.json` in a board file says it is. */
export const FORMAT = 'cuaderno-board';
/** Pages and items are written down in the words in which they are stored everywhere. */
export const VERSION = STORED_VERSION;

const names = <T extends string>(inks: readonly { readonly name: T }[]): [T, ...T[]] =>
  inks.map(({ name }) => name) as [T, ...T[]];
const origin = { id: Id, by: Id, at: z.number(), lesson: Id.nullable() };

/** A line of ink: points as [x, y, pressure, time], in points, from 0 to 1, and in ms from its start. */
const InkLine = z
  .object({
    kind: z.literal('ink'),
    ...origin,
    /** The cover sheet that it is written on. */
    on: Id.nullable().optional(),
    tool: z.enum(['pen', 'highlighter']),
    ink: z.enum([...names(INKS), ...names(HIGHLIGHTS)]),
    width: z.number().positive().max(200),
    points: z
      .array(z.tuple([z.number(), z.number(), z.number().min(0).max(1), z.number().int().min(0)]))
      .min(1)
      .max(20_000),
  })
  .refine(
    ({ tool, ink }) => (tool === 'pen' ? INKS : HIGHLIGHTS).some(({ name }) => name === ink),
    'that ink is not one of this tool',
  );

const placed = KIND_SCHEMAS.map((schema) => schema.extend(origin));
const FileItem = z.discriminatedUnion('kind', [InkLine, ...placed] as never);

/** What of what is written goes along. */
export interface BoardFileWish {
  /** Nothing; only what was prepared, outside of lessons; or all of it. */
  readonly ink: 'none' | 'prepared' | 'all';
  /** Those who wrote it, where they are to be named. */
  readonly people: readonly BoardWriter[] | null;
}

/** Everything on a board but its files: the content of `board.json`. */
export const BoardJson = z.object({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  title: z.string().max(200),
  /** What empty pages are made of. */
  sheet: Sheet.nullable(),
  /** Files beside it, each at `files/` under its SHA-256 and an ending. */
  files: z
    .array(
      z.object({
        hash: FileHash,
        type: z.string().max(100),
        path: z.string().max(200),
      }),
    )
    .max(10_000),
  /** Who wrote on it; without it nobody is named. */
  people: z.array(BoardWriter).max(5000).optional(),
  /** In order. */
  pages: z
    .array(PageSpec.extend({ items: z.array(FileItem).max(100_000) }))
    .min(1)
    .max(10_000),
});
export type BoardJson = Omit<z.infer<typeof BoardJson>, 'pages'> & {
  readonly pages: readonly (PageSpec & { readonly items: readonly FileItem[] })[];
};
type FileItem = z.infer<typeof InkLine> | ReturnType<typeof itemJson>;

/** A board as it is written down; what was taken away stays behind. */
export function boardJson(
  board: Board,
  files: BoardJson['files'],
  { ink, people }: BoardFileWish,
): BoardJson {
  const pages = pagesInOrder(board).map((page) => pageJson(page, ink));
  // Anyone who wrote nothing that is in it isn't in it.
  const wrote = new Set(pages.flatMap(({ items }) => items.map(({ by }) => by)));
  return {
    format: FORMAT,
    version: VERSION,
    title: board.title,
    sheet: board.sheet,
    files,
    ...(people ? { people: people.filter(({ id }) => wrote.has(id)) } : {}),
    pages,
  };
}

function pageJson(page: Page, ink: BoardFileWish['ink']): BoardJson['pages'][0] {
  const { id, order, name, width, height, paper, hidden, privateNotes } = page;
  const all = itemsOn(page).filter((item) => goesAlong(item, ink));
  return {
    id,
    order,
    name,
    width,
    height,
    paper,
    ...(hidden === undefined ? {} : { hidden }),
    ...(privateNotes === undefined ? {} : { privateNotes }),
    items: all.map((item) => (item.kind === 'ink' ? inkJson(item) : itemJson(item))),
  };
}

/** Material always does; what is written on a cover sheet is written, whatever it is. */
export function goesAlong(item: Item, ink: BoardFileWish['ink']): boolean {
  if (ink === 'all' || (isMaterial(item) && !item.on)) return true;
  return ink === 'prepared' && item.lesson === null;
}

function inkJson({ id, by, at, lesson, ink, on }: InkItem): z.infer<typeof InkLine> {
  const { style, points } = decodeStroke(ink);
  return {
    kind: 'ink',
    id,
    by,
    at,
    lesson,
    ...(on ? { on } : {}),
    tool: style.tool,
    ink: style.ink,
    width: style.width,
    points: points.map(({ x, y, pressure, time }) => [
      x,
      y,
      // What the coding keeps of it, and no digit more.
      Math.round(pressure * 1e4) / 1e4,
      time,
    ]),
  };
}

function itemJson(item: Exclude<Item, InkItem>) {
  const { id, by, at, lesson } = item;
  return { ...specOf(item), id, by, at, lesson };
}

/** The items of a page as they lie on a board. */
export function itemsOfJson(items: BoardJson['pages'][0]['items']): Item[] {
  return items.map((item): Item => {
    if (item.kind !== 'ink') return { ...item, removed: null };
    const { id, by, at, lesson, on, tool, ink, width, points } = item;
    const stroke = {
      style: { tool, ink, width },
      points: points.map(([x, y, pressure, time]) => ({ x, y, pressure, time })),
    } as Stroke;
    const line: Item = {
      kind: 'ink',
      id,
      by,
      at,
      lesson,
      removed: null,
      ink: encodeStroke(stroke),
    };
    return on ? { ...line, on } : line;
  });
}
