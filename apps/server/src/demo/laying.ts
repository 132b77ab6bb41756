import { mathMlOf, setFormula } from '@cuaderno/formats/formula';
import { formulaWords } from '@cuaderno/formats/formula-words';
import {
  addPageBeside,
  inkColour,
  keysBetween,
  layOutText,
  operation,
  pagesInOrder,
  SLIP_EDGE,
} from '@cuaderno/core';
import type {
  Actor,
  Board,
  Frame,
  Id,
  Operation,
  PageSpec,
  RichText,
  TextSpec,
  ItemSpec,
} from '@cuaderno/core';
import type { FastifyInstance } from 'fastify';
import { measureIn } from './measure.js';

/** An item without its place among others. */
export type LooseItem = ItemSpec extends infer T
  ? T extends ItemSpec
    ? Omit<T, 'order'>
    : never
  : never;

interface WrittenText {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly size: number;
  readonly text: RichText;
  readonly font?: 'plain' | 'title';
  readonly slip?: string;
}

/** A text as the editor would lay it. */
export function text({
  x,
  y,
  width,
  size,
  text: words,
  font = 'plain',
  slip,
}: WrittenText): Omit<TextSpec, 'order'> {
  const edge = slip ? SLIP_EDGE : 0;
  const inside = { size, width: width - 2 * edge, align: 'start' } as const;
  const { lines, height } = layOutText(words, inside, measureIn(font, size));
  return {
    kind: 'text',
    layer: 'material',
    frame: { x, y, width, height: height + 2 * edge, turn: slip ? -2 : 0 },
    text: words,
    font,
    size,
    colour: inkColour('midnight'),
    align: 'start',
    slip: slip ?? null,
    lines: lines.map((line) => ({
      y: line.y + edge,
      runs: line.runs.map((run) => ({ ...run, x: run.x + edge })),
    })),
  };
}

export const plain = (words: string): RichText => [{ runs: [{ text: words }] }];

/** A board as its tutor builds it. */
export class BoardBuilder {
  private constructor(
    private readonly host: { applyAs(ops: readonly Operation[], actor: Actor): Promise<void> },
    private readonly read: () => Promise<Board>,
    private readonly tutor: Actor,
  ) {}

  static async at(app: FastifyInstance, board: Id, tutor: Id): Promise<BoardBuilder> {
    const host = (await app.bus.host(board))!;
    return new BoardBuilder(host, () => host.between((state) => state), {
      id: tutor,
      role: 'tutor',
      trust: 'hands',
    });
  }

  make(ops: Operation[]): Promise<void> {
    return this.host.applyAs(ops, this.tutor);
  }

  board(): Promise<Board> {
    return this.read();
  }

  /** A page after the last, like it but for what is said. */
  async page(name: string, change: Partial<PageSpec>): Promise<PageSpec> {
    const board = await this.board();
    const edit = addPageBeside(board, pagesInOrder(board).at(-1)!.id, 'after');
    const [add] = edit.changes;
    if (add?.kind !== 'pages.add') throw new Error('A page is added by adding it.');
    const page = { ...add.pages[0]!, name, ...change };
    await this.make([operation({ kind: 'pages.add', pages: [page] })]);
    return page;
  }

  /** Lays items on a page, the first at the bottom. */
  lay(page: Id, items: readonly LooseItem[]): Promise<void> {
    const orders = keysBetween(null, null, items.length);
    return this.make(
      items.map((item, i) =>
        operation({ kind: 'item.add', page, item: { ...item, order: orders[i]! } as ItemSpec }),
      ),
    );
  }
}

/** A formula of letters of `size` points, its left end at `x` and its middle at `y`. */
export async function formula(
  source: string,
  x: number,
  y: number,
  size: number,
): Promise<LooseItem> {
  const { outline, box } = await setFormula(source, 'latex');
  const [width, height] = [(box.width * size) / 1000, (box.height * size) / 1000];
  const frame: Frame = { x, y: y - height / 2, width, height, turn: 0 };
  return {
    kind: 'formula',
    layer: 'material',
    source,
    notation: 'latex',
    colour: inkColour('midnight'),
    outline,
    box,
    words: await formulaWords(mathMlOf(source, 'latex')),
    frame,
  };
}
