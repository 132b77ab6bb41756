import fc from 'fast-check';
import { BoardDraft, emptyBoard, itemsOn, materialOn } from '../board/index.js';
import type { Board, Page, PageSpec } from '../board/index.js';
import { distance, corners } from '../geometry/index.js';
import { newId } from '../id/index.js';
import type { Frame } from '../geometry/index.js';
import { apply, invert, operation } from '../ops/index.js';
import type { Change, Operation } from '../ops/index.js';
import { addInk, addMark, addPages, somePages } from '../testing/index.js';
import {
  alignItems,
  distributeItems,
  frameOf,
  groupItems,
  itemAt,
  itemBounds,
  itemsInBox,
  itemsInLasso,
  layCopies,
  nudgeItems,
  orderItems,
  placeItems,
  snap,
  strokeOf,
  wholeGroups,
} from './index.js';

const me = newId();
const [sheet] = somePages(1) as [PageSpec];
const box = (x: number, y: number, width = 40, height = 20, turn = 0): Frame => ({
  x,
  y,
  width,
  height,
  turn,
});
const marks = [box(10, 10), box(100, 40, 20, 20), box(300, 200, 60, 60, 30)].map((frame, i) =>
  addMark(sheet.id, { frame, order: `a${i}` }),
);
const ids = marks.map(({ id }) => id);
const line = addInk(sheet.id, 3);

function after(board: Board, ops: readonly Operation[]): Board {
  const draft = new BoardDraft(board);
  for (const op of ops) apply(op, draft, { by: me, at: 1, lesson: null });
  return draft.done();
}
const done = (board: Board, changes: readonly Change[]): Board =>
  after(
    board,
    changes.map((change) => operation(change)),
  );
const start = after(emptyBoard(newId()), [addPages([sheet]), ...marks, line]);
const page = (board: Board): Page => board.pages.get(sheet.id)!;
const frames = (board: Board): Frame[] =>
  ids.map((id) => {
    const item = page(board).items.get(id)!;
    return item.kind === 'ink' ? box(0, 0) : item.frame;
  });

describe('choosing items', () => {
  it('by a touch means the topmost, ink before material', () => {
    const over = addMark(sheet.id, { frame: box(15, 12, 10, 10), order: 'a9' });
    const board = after(start, [over]);
    expect(itemAt(page(board), { x: 18, y: 15 }, 1)?.id).toBe(over.id);
    expect(itemAt(page(board), { x: 12, y: 12 }, 1)?.id).toBe(ids[0]!);
    expect(itemAt(page(board), { x: 590, y: 830 }, 1)).toBeNull();
    const [first] = strokeOf((line as { ink: Uint8Array } & Operation).ink).points;
    expect(itemAt(page(board), first!, 1)?.id).toBe(line.id);
  });

  it('by a box means what lies in it whole, and never what is fixed', () => {
    const around = { x: 0, y: 0, width: 130, height: 70 };
    expect(itemsInBox(page(start), around)).toEqual([ids[0]!, ids[1]!]);
    expect(itemsInBox(page(start), { ...around, width: 110 })).toEqual([ids[0]!]);
    const fixed = addMark(sheet.id, { frame: box(50, 30), fixed: true });
    expect(itemsInBox(page(after(start, [fixed])), around).length).toBe(2);
  });

  it('by a lasso means what it goes round, in any shape', () => {
    const lasso = [
      { x: 90, y: 30 },
      { x: 130, y: 35 },
      { x: 125, y: 75 },
      { x: 95, y: 70 },
    ];
    expect(itemsInLasso(page(start), lasso)).toEqual([ids[1]!]);
    expect(itemsInLasso(page(start), lasso.slice(0, 2))).toEqual([]);
  });

  it('means a whole group by any of it', () => {
    const board = done(start, groupItems(start, sheet.id, [ids[0]!, ids[2]!, line.id], true));
    expect(wholeGroups(page(board), [ids[2]!])).toEqual([ids[0]!, ids[2]!]);
    expect(itemsInBox(page(board), { x: 0, y: 0, width: 60, height: 40 })).toEqual([
      ids[0]!,
      ids[2]!,
    ]);
    const broken = done(board, groupItems(board, sheet.id, [ids[0]!, ids[2]!], false));
    expect(wholeGroups(page(broken), [ids[2]!])).toEqual([ids[2]!]);
  });
});

describe('arranging items', () => {
  const all = [...ids, line.id];

  it('moves, sizes and turns them together, and one step of undo takes it back', () => {
    const from = frameOf(page(start), all)!;
    const to = {
      ...from,
      x: from.x + 50,
      width: from.width * 2,
      height: from.height * 2,
      turn: 90,
    };
    const changes = placeItems(start, sheet.id, all, from, to);
    const ops = changes.map((change) => operation(change));
    const board = after(start, ops);
    // What was far apart is twice as far apart, turned by a quarter.
    const centre = (f: Frame) => ({ x: f.x + f.width / 2, y: f.y + f.height / 2 });
    const [a, b] = frames(start).map(centre) as [Point2, Point2];
    const [c, d] = frames(board).map(centre) as [Point2, Point2];
    expect(d.x - c.x).toBeCloseTo(-2 * (b.y - a.y), 6);
    expect(d.y - c.y).toBeCloseTo(2 * (b.x - a.x), 6);
    expect(frames(board)[2]).toEqual(jasmine.objectContaining({ width: 120, turn: 120 }));
    const back = after(
      board,
      ops.reverse().flatMap((op) => invert(op, board, me) ?? []),
    );
    expect(page(back).items).toEqual(page(start).items);
  });

  it('stretches a single thing as its own frame goes', () => {
    const to = box(5, 6, 200, 10, 45);
    const board = done(start, placeItems(start, sheet.id, [ids[0]!], frames(start)[0]!, to));
    expect(frames(board)[0]).toEqual(to);
  });

  it('keeps ink on its way: there and back again is where it was, to a step of its coding', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -200, max: 200 }),
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: -180, max: 180 }),
        (x, grow, turn) => {
          const from = frameOf(page(start), [line.id])!;
          const to = { x, y: 40, width: from.width * grow, height: from.height * grow, turn };
          const there = done(start, placeItems(start, sheet.id, [line.id], from, to));
          const back = done(there, placeItems(there, sheet.id, [line.id], to, from));
          const points = (board: Board) => {
            const item = page(board).items.get(line.id)!;
            return item.kind === 'ink' ? strokeOf(item.ink).points : [];
          };
          points(back).forEach((p, i) => expect(distance(p, points(start)[i]!)).toBeLessThan(0.1));
        },
      ),
    );
  });

  it('lines them up, and makes the spaces between them alike', () => {
    const left = done(start, alignItems(start, sheet.id, ids, 'left'));
    const lefts = ids.map((id) => itemBounds(page(left).items.get(id)!).x);
    lefts.forEach((x) => expect(x).toBeCloseTo(lefts[0]!, 6));
    const even = done(start, distributeItems(start, sheet.id, ids, 'down'));
    const boxes = ids.map((id) => itemBounds(page(even).items.get(id)!));
    const gaps = boxes.slice(1).map((b, i) => b.y - boxes[i]!.y - boxes[i]!.height);
    expect(gaps[0]).toBeCloseTo(gaps[1]!, 6);
    expect(boxes[0]!.y).toBeCloseTo(10, 6);
    expect(distributeItems(start, sheet.id, ids.slice(0, 2), 'down')).toEqual([]);
  });

  it('brings them to the front or to the back, in the order among themselves', () => {
    const order = (board: Board) => materialOn(page(board)).map(({ id }) => id);
    const front = done(start, orderItems(start, sheet.id, [ids[1]!, ids[0]!], 'front'));
    expect(order(front)).toEqual([ids[2]!, ids[0]!, ids[1]!]);
    const back = done(front, orderItems(front, sheet.id, [ids[0]!, ids[1]!], 'back'));
    expect(order(back)).toEqual([ids[0]!, ids[1]!, ids[2]!]);
    expect(orderItems(start, sheet.id, ids, 'front')).toEqual([]);
  });

  it('lays copies with ids and groups of their own, above what is there', () => {
    const grouped = done(start, groupItems(start, sheet.id, ids.slice(0, 2), true));
    const items = [...ids.slice(0, 2), line.id].map((id) => page(grouped).items.get(id)!);
    const copies = layCopies(page(grouped), items, 12, 12);
    const board = after(grouped, copies.changes as Operation[]);
    expect(itemsOn(page(board)).length).toBe(7);
    const [a, b] = copies.ids.map((id) => page(board).items.get(id)!);
    expect(a!.kind !== 'ink' && b!.kind !== 'ink' && a!.group === b!.group).toBeTrue();
    expect(a!.kind !== 'ink' && a!.group).not.toBe((items[0] as { group?: string }).group!);
    expect(
      materialOn(page(board))
        .slice(-2)
        .map(({ id }) => id),
    ).toEqual(copies.ids.slice(0, 2));
    expect(corners((a as { frame: Frame }).frame)[0].x).toBeCloseTo(22, 6);
  });

  it('moves them a step', () => {
    const board = done(start, nudgeItems(start, sheet.id, ids, 1, -2));
    expect(frames(board)[0]).toEqual(box(11, 8));
    expect(nudgeItems(start, sheet.id, ids, 0, 0)).toEqual([]);
    expect(nudgeItems(start, sheet.id, [newId()], 1, 1)).toEqual([]);
  });
});

interface Point2 {
  readonly x: number;
  readonly y: number;
}

describe('snapping', () => {
  const field = { page: { width: 600, height: 800 }, others: [box(100, 100)], grid: null };

  it('meets edges and middles of neighbours and of the page, where they are near', () => {
    const near = snap({ x: 103, y: 300, width: 40, height: 20 }, field, 5);
    expect(near).toEqual({ dx: -3, dy: 0, guides: [{ x: 100 }] });
    const middle = snap({ x: 282, y: 391, width: 40, height: 20 }, field, 5);
    expect([middle.dx, middle.dy]).toEqual([-2, -1]);
    expect(snap({ x: 220, y: 300, width: 33, height: 21 }, field, 5).guides).toEqual([]);
  });

  it('meets the squares of the paper where nothing else is near', () => {
    const squared = { ...field, grid: 14 };
    expect(snap({ x: 212, y: 297, width: 33, height: 21 }, squared, 5)).toEqual({
      dx: -2,
      dy: -3,
      guides: [],
    });
  });
});
