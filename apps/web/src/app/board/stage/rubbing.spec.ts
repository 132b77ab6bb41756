import { BoardDraft, emptyBoard, drawnOn } from '@cuaderno/core/board';
import { strokeOf } from '@cuaderno/core/edits';
import { newId } from '@cuaderno/core/id';
import { operation } from '@cuaderno/core/ops';
import type { Board, Item } from '@cuaderno/core/board';
import { encodeStroke } from '@cuaderno/core/ink';
import { apply } from '@cuaderno/core/ops';
import { addPages, somePages } from '@cuaderno/core/testing';
import type { Sample } from './gestures';
import { Rubbing } from './rubbing';
import type { Cut } from './rubbing';

const [page] = somePages(1);
const me = newId();
const at = (x: number, y: number): Sample => ({
  x,
  y,
  pressure: 0.5,
  time: 0,
  device: 'mouse',
  adds: false,
});

describe('rubbing out parts of lines', () => {
  let board: Board;
  let cuts: Cut[];
  let tool: Rubbing;
  let abilities: (item: Item) => boolean;

  const make = (op: Parameters<typeof operation>[0]): void => {
    const draft = new BoardDraft(board);
    apply(operation(op), draft, { by: me, at: 1, lesson: null });
    board = draft.done();
  };
  const line = (y: number): void =>
    make({
      kind: 'ink.add',
      page: page!.id,
      ink: encodeStroke({
        style: { tool: 'pen', ink: 'coal', width: 2 },
        points: [0, 50, 100, 150, 200].map((x) => ({ x, y, pressure: 0.5, time: x })),
      }),
    });

  beforeEach(() => {
    board = emptyBoard(newId());
    const draft = new BoardDraft(board);
    apply(addPages([page!]), draft, { by: me, at: 1, lesson: null });
    board = draft.done();
    cuts = [];
    abilities = () => true;
    tool = new Rubbing(
      {
        camera: () => ({ x: 0, y: 0, zoom: 1 }),
        seen: () => [{ page: board.pages.get(page!.id)!, x: 0, y: 0, index: 0 }],
        mayErase: () => abilities,
      },
      (cut) => cuts.push(cut),
    );
  });

  it('cuts what it goes over, once for each move, in one step to undo', () => {
    line(20);
    line(60);
    tool.down(at(100, 0));
    tool.move([at(100, 20), at(100, 40)]);
    tool.move([at(100, 80)]);
    tool.up();
    expect(cuts.length).toBe(2);
    expect(cuts.every(({ pieces }) => pieces.length === 2)).toBeTrue();
    expect(new Set(cuts.map(({ gesture }) => gesture)).size).toBe(1);
  });

  it('goes on with pieces that the board doesn’t show yet', () => {
    line(20);
    tool.down(at(100, 20));
    tool.move([at(160, 20)]);
    expect(cuts.length).toBe(2);
    // The second cut is of a piece that the first has left.
    expect(cuts[0]!.pieces.map(({ id }) => id)).toContain(cuts[1]!.item);
    for (const { item, pieces } of cuts)
      make({ kind: 'ink.cut', page: page!.id, item, pieces: [...pieces] });
    tool.settle(board);
    const left = drawnOn(board.pages.get(page!.id)!).flatMap((item) =>
      item.kind === 'ink' ? strokeOf(item.ink).points.map(({ x }) => x) : [],
    );
    expect(left.every((x) => x < 92 || x > 168)).toBeTrue();
  });

  it('leaves alone what isn’t this person’s to erase', () => {
    line(20);
    abilities = () => false;
    tool.down(at(100, 20));
    tool.up();
    expect(cuts).toEqual([]);
  });
});
