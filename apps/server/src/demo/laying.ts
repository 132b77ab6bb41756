import { setFormula } from '@cuaderno/formats/formula';
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
  ThingSpec,
} from '@cuaderno/core';
import type { FastifyInstance } from 'fastify';
import { measureIn } from './measure.js';

/** A thing without its place among others. */
export type Loose = ThingSpec extends infer T
  ? T extends ThingSpec
    ? Omit<T, 'order'>
    : never
  : never;

interface Written {
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
}: Written): Omit<TextSpec, 'order'> {
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
export class Desk {
  private constructor(
    private readonly room: { take(ops: readonly Operation[], actor: Actor): Promise<void> },
    private readonly read: () => Promise<Board>,
    private readonly tutor: Actor,
  ) {}

  static async at(app: FastifyInstance, board: Id, tutor: Id): Promise<Desk> {
    const room = (await app.bus.room(board))!;
    return new Desk(room, () => room.between((state) => state), {
      id: tutor,
      role: 'tutor',
      trust: 'hands',
    });
  }

  make(ops: Operation[]): Promise<void> {
    return this.room.take(ops, this.tutor);
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

  /** Lays things on a page, the first at the bottom. */
  lay(page: Id, things: readonly Loose[]): Promise<void> {
    const orders = keysBetween(null, null, things.length);
    return this.make(
      things.map((thing, i) =>
        operation({ kind: 'item.add', page, item: { ...thing, order: orders[i]! } as ThingSpec }),
      ),
    );
  }
}

/** A formula of letters of `size` points, its left end at `x` and its middle at `y`. */
export async function formula(source: string, x: number, y: number, size: number): Promise<Loose> {
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
    frame,
  };
}
