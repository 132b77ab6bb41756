import { BoardDraft, emptyBoard, itemsOn, materialOn } from '../board/index.js';
import type { Board, PageSpec } from '../board/index.js';
import { newId } from '../id/index.js';
import { encodeStroke } from '../ink/index.js';
import type { Actor } from '../permissions/index.js';
import {
  addInk,
  addMark,
  addPages,
  handwriting,
  somePages,
  student,
  tutor,
} from '../testing/index.js';
import { pack, readClientMessage } from '../wire/index.js';
import { apply, changeItem, inParts, invert, Operation, operation, refuse } from './index.js';
import type { ItemTraits } from './index.js';

const maren = tutor();
const ana = student('write');
const [sheet] = somePages(1) as [PageSpec];

function after(board: Board, ops: readonly Operation[], by = maren.id): Board {
  const draft = new BoardDraft(board);
  for (const op of ops) apply(op, draft, { by, at: 1, lesson: null });
  return draft.done();
}

const mark = addMark(sheet.id);
const line = addInk(sheet.id);
const start = after(emptyBoard(newId()), [addPages([sheet]), mark, line]);
const frame = { x: 5, y: 6, width: 70, height: 80, turn: 15 };
const change = (board: Board, item: string, to: ItemTraits): Operation =>
  operation(changeItem(board, sheet.id, item, to)!);
const item = (board: Board, id: string) => board.pages.get(sheet.id)!.items.get(id);

describe('a thing on a page', () => {
  it('is laid, taken away and brought back as ink is', () => {
    const gone = after(start, [invert(mark, start, maren.id)!]);
    expect(materialOn(gone.pages.get(sheet.id)!)).toEqual([]);
    expect(after(start, [mark])).toEqual(start);
    expect(invert(mark, start, ana.id)).toBeNull();
  });

  it('is moved, turned and fixed; and undo gives back what nobody has changed since', () => {
    const op = change(start, mark.id, { frame, fixed: true });
    const changed = after(start, [op]);
    expect(item(changed, mark.id)).toEqual(jasmine.objectContaining({ frame, fixed: true }));
    const loosened = after(changed, [change(changed, mark.id, { fixed: false })]);
    const back = after(loosened, [invert(op, loosened, maren.id)!]);
    expect(item(back, mark.id)).toEqual(
      jasmine.objectContaining({
        fixed: false,
        frame: { x: 100, y: 120, width: 40, height: 40, turn: 0 },
      }),
    );
    expect(changeItem(changed, sheet.id, mark.id, { frame, fixed: true })).toBeNull();
    expect(changeItem(start, sheet.id, mark.id, { hidden: false, group: null })).toBeNull();
  });

  it('lies under the ink in its own order, whenever it came', () => {
    const low = addMark(sheet.id, { order: 'Zz' });
    const high = addMark(sheet.id, { order: 'a5' });
    const board = after(start, [high, low]);
    expect(materialOn(board.pages.get(sheet.id)!).map(({ id }) => id)).toEqual([
      low.id,
      mark.id,
      high.id,
    ]);
  });

  it('stays a thing: what would make it none is refused', () => {
    const tries: [object, string | null][] = [
      [{ frame: { ...frame, width: 0 } }, 'bad-item'],
      [{ frame: { ...frame, x: Infinity } }, 'bad-item'],
      [{ colour: 'red' }, 'bad-item'],
      [{ mark: 'dance' }, 'bad-item'],
      [{ points: [] }, 'bad-item'],
      [{ order: '0' }, 'bad-order'],
      [{ colour: '#0b6f86', group: newId() }, null],
    ];
    for (const [to, expected] of tries) {
      const op = operation({
        ...{ kind: 'item.change', page: sheet.id, item: mark.id, from: {} },
        to: to as ItemTraits,
      });
      expect(refuse(op, start, maren))
        .withContext(JSON.stringify(to))
        .toBe(expected as never);
    }
  });

  it('is changed in what can be changed about it, and in nothing else', () => {
    const change = (to: object, from: object = {}): boolean =>
      Operation.safeParse({
        ...{ id: newId(), kind: 'item.change', page: sheet.id, item: mark.id, to, from },
      }).success;
    let deep: object = {};
    for (let i = 0; i < 120; i++) deep = { x: deep };
    const never: object[] = [
      { kind: 'ink' },
      { by: ana.id },
      { file: 'a'.repeat(64) },
      { layer: 'ink' },
      { order: { toString: 1, valueOf: 1 } },
      { frame: { ...frame, more: 1 } },
      { x: JSON.parse('{"__proto__": 1}') as object },
      deep,
    ];
    for (const some of never) {
      expect(change(some)).withContext(JSON.stringify(some)).toBeFalse();
      expect(change({}, some)).withContext(JSON.stringify(some)).toBeFalse();
    }
    expect(change({ frame, colour: '#0b6f86' }, { frame, crop: null, on: null })).toBeTrue();
  });

  it('may be a line of ink, which is moved by being written anew', () => {
    const ink = encodeStroke(handwriting(9, { count: 5 }));
    const op = change(start, line.id, { ink });
    expect(refuse(op, start, maren)).toBeNull();
    const moved = after(start, [op]);
    expect(itemsOn(moved.pages.get(sheet.id)!)[1]).toEqual(jasmine.objectContaining({ ink }));
    expect(after(moved, [invert(op, moved, maren.id)!])).toEqual(start);
    const bad = operation({
      kind: 'item.change',
      page: sheet.id,
      item: line.id,
      to: { ink: Uint8Array.of(1, 2, 3) },
      from: {},
    });
    expect(refuse(bad, start, maren)).toBe('bad-ink');
  });
});

describe('a change of very many things', () => {
  const ids = Array.from({ length: 2300 }, () => newId());

  it('is made in parts that each fit into a message, and none is lost', () => {
    const parts = inParts({ kind: 'items.remove', page: sheet.id, items: ids });
    expect(parts.length).toBe(3);
    expect(parts.flatMap((one) => (one.kind === 'items.remove' ? one.items : []))).toEqual(ids);
    for (const one of parts) {
      const message = pack({ kind: 'ops', board: newId(), ops: [operation(one)] });
      expect(() => readClientMessage(message, 'student')).not.toThrow();
    }
    const pages = inParts({ kind: 'pages.add', pages: somePages(250) });
    expect(pages.map((one) => (one.kind === 'pages.add' ? one.pages.length : 0))).toEqual([
      100, 100, 50,
    ]);
    for (const one of pages)
      expect(() =>
        readClientMessage(pack({ kind: 'ops', board: newId(), ops: [operation(one)] })),
      ).not.toThrow();
    const small = { kind: 'items.restore', page: sheet.id, items: [ids[0]!] } as const;
    expect(inParts({ ...small, items: [...small.items] })).toEqual([small as never]);
  });
});

describe('who may do what with things', () => {
  const theirs = addMark(sheet.id, { layer: 'ink' });
  const fixed = addMark(sheet.id, { fixed: true });
  const hidden = addMark(sheet.id, { hidden: true });
  const board = after(after(start, [theirs], ana.id), [fixed, hidden]);
  const hands: Actor = { ...ana, trust: 'hands' };
  const look: Actor = { ...ana, trust: 'view' };
  const ben = student('write');
  const cases: [string, Operation, Actor, string | null][] = [
    ['a student writes a mark', addMark(sheet.id, { layer: 'ink' }), ana, null],
    ['without a pen', addMark(sheet.id, { layer: 'ink' }), look, 'no-pen'],
    ['lays material', addMark(sheet.id), hands, 'material-tutor'],
    ['hides', addMark(sheet.id, { layer: 'ink', hidden: true }), ana, 'material-tutor'],
    ['changes their own', change(board, theirs.id, { colour: '#000000' }), ana, null],
    ['changes another’s', change(board, theirs.id, { colour: '#000000' }), ben, 'not-yours'],
    ['moves material', change(board, mark.id, { frame }), ana, 'material-tutor'],
    ['moves material, hands on', change(board, mark.id, { frame }), hands, null],
    ['moves what is fixed', change(board, fixed.id, { frame }), hands, 'material-tutor'],
    ['loosens it', change(board, fixed.id, { fixed: false }), hands, 'material-tutor'],
    ['recolours material', change(board, mark.id, { colour: '#000000' }), ana, 'material-tutor'],
    ['recolours it, hands on', change(board, mark.id, { colour: '#000000' }), hands, null],
    ['fixes it, hands on', change(board, mark.id, { fixed: true }), hands, 'material-tutor'],
    ['holds it back, hands on', change(board, mark.id, { hidden: true }), hands, 'material-tutor'],
    ['moves what is hidden', change(board, hidden.id, { frame }), hands, 'no-such-item'],
    [
      'moves nothing',
      { ...change(board, mark.id, { frame }), item: newId() } as never,
      hands,
      'no-such-item',
    ],
    ['the tutor moves it', change(board, fixed.id, { frame }), maren, null],
    ['the tutor moves a student’s', change(board, theirs.id, { frame }), maren, null],
  ];
  for (const [what, op, who, expected] of cases)
    it(`${what}: ${expected ?? 'taken'}`, () =>
      expect(refuse(op, board, who)).toBe(expected as never));
});
