import {
  BoardDraft,
  coversOn,
  drawnOn,
  emptyBoard,
  itemsOn,
  pileOf,
  pagesInOrder,
  sheetAt,
} from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { encodeStroke } from '../ink/index.js';
import { apply, invert, operation, refuse } from '../ops/index.js';
import type { Change, Operation } from '../ops/index.js';
import { addMark, addPages, somePages, student, tutor } from '../testing/index.js';
import {
  alignItems,
  copiesOf,
  copyPages,
  coverPlace,
  inSight,
  itemAt,
  itemsInBox,
  layCover,
  liftCovers,
  nudgeItems,
  onItsSheet,
  placeItems,
  wipe,
} from './index.js';

describe('a cover sheet', () => {
  const [maren, ida] = [newId(), newId()];
  const [spec] = somePages(1);
  const { width, height } = spec!;
  let board: Board;

  const page = (): Page => board.pages.get(spec!.id)!;
  /** Ink on the page itself. */
  const inkOn = (of: Page) => pileOf(of)[0]!.ink;

  function make(changes: readonly (Change | Operation)[], by = maren): Operation[] {
    const draft = new BoardDraft(board);
    const ops = changes.map((change) => {
      const placed = onItsSheet(draft.done(), change);
      const op = 'id' in placed ? placed : operation(placed);
      apply(op, draft, { by, at: 1, lesson: null });
      return op;
    });
    board = draft.done();
    return ops;
  }

  /** A line from a place, so many points to the right. */
  function line(x: number, y: number, long = 30, by = maren): Id {
    const points = Array.from({ length: 6 }, (_, i) => ({
      x: x + (long * i) / 5,
      y,
      pressure: 0.5,
      time: i,
    }));
    const ink = encodeStroke({ style: { tool: 'pen', ink: 'midnight', width: 2 }, points });
    return make([{ kind: 'ink.add', page: spec!.id, ink }], by)[0]!.id;
  }

  const lay = (covering: 'whole' | 'beside' | 'above' = 'whole'): Id[] =>
    make(layCover(page(), covering, '#dff2e1')).map(({ id }) => id);
  const lift = (ids: readonly Id[], lifted = true) =>
    make(liftCovers(board, spec!.id, ids, lifted));
  const drawn = (): Id[] => drawnOn(page()).map(({ id }) => id);

  beforeEach(() => {
    board = emptyBoard(newId());
    make([addPages([spec!])]);
  });

  it('lies over all that is on the page, and what is written then lies on it', () => {
    const under = line(100, 100);
    const [cover] = lay();
    const over = line(100, 100);
    expect(drawn()).toEqual([under, cover!, over]);
    expect(pileOf(page()).map(({ ink }) => ink.length)).toEqual([1, 1]);
    expect(itemAt(page(), { x: 110, y: 100 }, 1)?.id).toBe(over);
  });

  it('is lifted with what is written on it, and the page is as it was; laid again, it is as it was', () => {
    const under = line(100, 100);
    const [cover] = lay();
    const over = line(100, 100);
    lift([cover!]);
    expect(drawn()).toEqual([under]);
    expect(itemAt(page(), { x: 110, y: 100 }, 1)?.id).toBe(under);
    const since = line(200, 200);
    lift([cover!], false);
    expect(drawn()).toEqual([under, since, cover!, over]);
  });

  it('keeps what was on its way to it when it was lifted', () => {
    const [cover] = lay();
    const late = onItsSheet(board, addMark(spec!.id, { layer: 'ink' }));
    lift([cover!]);
    make([late]);
    expect(drawn()).toEqual([]);
    lift([cover!], false);
    expect(drawn()).toEqual([cover!, late.id]);
  });

  it('covers half the page, or both halves with two sheets that are lifted each by itself', () => {
    const [left, right] = lay('beside');
    expect(coversOn(page()).map((cover) => coverPlace(page(), cover))).toEqual(['left', 'right']);
    const [a, b] = [line(100, 100), line(width - 100, 100)];
    lift([left!]);
    expect(drawn()).toEqual([right!, b]);
    lift([left!], false);
    lift([right!]);
    expect(drawn()).toEqual([left!, a]);
    const [upper, lower] = lay('above');
    expect(sheetAt(page(), { x: 100, y: 100 })?.id).toBe(upper!);
    expect(sheetAt(page(), { x: 100, y: height - 100 })?.id).toBe(lower!);
  });

  it('takes what is nudged or lined up onto it, and gives what leaves it to the page', () => {
    const [left] = lay('beside');
    const right = line(width - 100, 100);
    const on = line(100, 300);
    make(nudgeItems(board, spec!.id, [right], -(width - 250), 0));
    lift([left!]);
    expect(drawn()).toEqual([coversOn(page())[1]!.id]);
    lift([left!], false);
    make(nudgeItems(board, spec!.id, [on], width - 250, 0));
    lift([left!]);
    expect(drawn()).toContain(on);
    lift([left!], false);
    make(alignItems(board, spec!.id, [right, on], 'left'));
    lift([left!]);
    expect(drawn()).not.toContain(on);
  });

  it('leaves a rim of the page in sight, which is written on as before', () => {
    lay();
    const rim = line(1, 1, 3);
    expect(inkOn(page()).map(({ id }) => id)).toEqual([rim]);
  });

  it('is in the way: what is under it is neither chosen nor wiped', () => {
    const under = line(100, 100);
    const [left] = lay('beside');
    const over = line(100, 200);
    const beside = line(width - 100, 100);
    const seen = () => inSight(page()).map(({ id }) => id);
    expect(seen().sort()).toEqual([over, beside].sort());
    expect(itemAt(page(), { x: 110, y: 100 }, 1)).toBeNull();
    expect(itemsInBox(page(), { x: 0, y: 0, width, height })).not.toContain(under);
    make(wipe(board, 'all', 'all', maren));
    lift([left!]);
    expect(drawn()).toContain(under);
    lift([left!], false);
    expect(drawn()).not.toContain(over);
  });

  it('keeps its ink when everything in sight is wiped while it is lifted', () => {
    const [cover] = lay();
    const over = line(100, 100);
    lift([cover!]);
    make(wipe(board, 'all', 'all', maren));
    lift([cover!], false);
    expect(drawn()).toEqual([cover!, over]);
  });

  it('takes what is put down on it, and gives up what is put down beside it', () => {
    const [left] = lay('beside').slice(0, 1);
    lift([coversOn(page())[1]!.id]);
    const [mark] = make([addMark(spec!.id, { layer: 'ink' })]);
    const from = { x: 100, y: 120, width: 40, height: 40, turn: 0 };
    const to = { ...from, x: width - 90 };
    const isOn = () => page().items.get(mark!.id)?.on ?? null;
    expect(isOn()).toBe(left!);
    const [moved] = make(placeItems(board, spec!.id, [mark!.id], from, to));
    expect(isOn()).toBeNull();
    make([invert(moved!, board, maren)!]);
    expect(isOn()).toBe(left!);
  });

  it('goes with what is on it when it is taken away, and comes back with it', () => {
    const [cover] = lay();
    const over = line(100, 100);
    const [away] = make([{ kind: 'items.remove', page: spec!.id, items: [cover!] }]);
    expect(drawn()).toEqual([]);
    expect(itemsOn(page())).toEqual([]);
    make([invert(away!, board, maren)!]);
    expect(drawn()).toEqual([cover!, over]);
  });

  it('is copied with its page, and what is written on it is written on the copy', () => {
    const under = line(100, 100);
    const [cover] = lay();
    line(100, 100);
    make(copyPages(board, [spec!.id])!.changes);
    const copy = pagesInOrder(board)[1]!;
    expect(pileOf(copy).map(({ ink }) => ink.length)).toEqual([1, 1]);
    expect(pileOf(copy)[1]!.cover!.id).not.toBe(cover!);
    make([{ kind: 'items.remove', page: spec!.id, items: [cover!] }]);
    make(copyPages(board, [spec!.id])!.changes);
    const later = pagesInOrder(board)[1]!;
    expect(drawnOn(later).length).toBe(1);
    expect(drawn()).toEqual([under]);
  });

  it('goes to another board with what is on it, or stays behind with it', () => {
    lay();
    line(100, 100);
    const about = { by: maren, at: 5 };
    const [key] = ['a0'];
    const all = copiesOf([page()], [key], { ...about, lessonInk: true }).entries;
    expect(all.map(({ op }) => op.kind)).toEqual(['pages.add', 'item.add', 'ink.add']);
    const [, sheet, ink] = all;
    expect(ink!.op.kind === 'ink.add' && ink!.op.on).toBe(sheet!.op.id);
  });

  it('is the tutor’s to lay, lift and take away; students write on it', () => {
    const [cover] = lay();
    const [writer, teacher] = [student('hands', ida), tutor(maren)];
    const about = { page: spec!.id, item: cover! };
    const [add] = layCover(page(), 'whole', '#ffffff').map(operation);
    const [up] = liftCovers(board, spec!.id, [cover!], true).map(operation);
    expect(refuse(add!, board, writer)).toBe('material-tutor');
    expect(refuse(up!, board, writer)).toBe('material-tutor');
    expect(refuse(add!, board, teacher)).toBeNull();
    expect(refuse(up!, board, teacher)).toBeNull();
    const away = operation({ kind: 'items.remove', page: about.page, items: [about.item] });
    expect(refuse(away, board, writer)).toBe('not-yours');
    const mine = onItsSheet(board, addMark(spec!.id, { layer: 'ink' }));
    expect(refuse(mine, board, writer)).toBeNull();
  });

  it('that nobody knows is none: what says it lies there lies on the page', () => {
    const stray = newId();
    make([addMark(spec!.id, { layer: 'ink', on: stray })]);
    expect(inkOn(page()).length).toBe(1);
  });
});
