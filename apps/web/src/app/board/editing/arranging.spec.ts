import { emptyBoard, itemsOn, materialOn } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { predict, receive, replica } from '@cuaderno/core/log';
import type { Board, Item } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { Replica } from '@cuaderno/core/log';
import type { Change, Operation } from '@cuaderno/core/ops';
import { addInk, addMark, addPages, somePages } from '@cuaderno/core/testing';
import { operation } from '@cuaderno/core/ops';
import type { BoardSession } from '../../live/board-session';
import type { Selection } from '../stage/selecting';
import { Arranging } from './arranging';
import { copyItems, pastedItems } from './clipboard';
import { PaperSource } from '../drawing/paper-source';
import { inRows } from './in-rows';

const me = newId();
const [sheet] = somePages(1);
const page = sheet!.id;

/** A session without a server: what is done is there at once. */
class Alone {
  state: Replica;
  steps = 0;

  constructor(ops: readonly Operation[]) {
    const entries = ops.map((op, i) => ({ seq: i + 1, by: me, at: 1, lesson: null, op }));
    this.state = receive(replica(emptyBoard(newId()), 0), entries)!;
  }

  board(): Board {
    return this.state.view;
  }

  doAll(changes: readonly Change[]): void {
    this.steps++;
    for (const change of changes) {
      const op = 'id' in change ? (change as Operation) : operation(change);
      this.state = predict(this.state, op, { by: me, at: 2, lesson: null });
    }
  }
}

describe('arranging what is chosen', () => {
  const marks = [addMark(page, { order: 'a0' }), addMark(page, { order: 'a1' })];
  const line = addInk(page, 4);
  let alone: Alone;
  let shown: Selection | null;
  let arranging: Arranging;

  beforeEach(() => {
    alone = new Alone([addPages([sheet!]), ...marks, line]);
    shown = null;
    arranging = new Arranging(
      () => alone as unknown as BoardSession,
      () => new PaperSource(),
      () => 'material',
      () => true,
      (selection) => {
        shown = selection;
        arranging.selection.set(selection);
      },
    );
  });

  const choose = (...ids: Id[]): void => arranging.selection.set({ page, ids });
  const item = (id: Id): Item => alone.board().pages.get(page)!.items.get(id)!;
  const count = (): number => itemsOn(alone.board().pages.get(page)!).length;

  it('makes every deed one step', () => {
    choose(marks[0]!.id, marks[1]!.id, line.id);
    arranging.do({ kind: 'fix', fixed: true });
    expect(alone.steps).toBe(1);
    expect([item(marks[0]!.id), item(marks[1]!.id)].map((m) => 'fixed' in m && m.fixed)).toEqual([
      true,
      true,
    ]);
    arranging.nudge(5, 5);
    expect(alone.steps).withContext('what is fixed stays').toBe(1);
  });

  it('chooses the copies that it makes', () => {
    choose(marks[0]!.id, line.id);
    arranging.do({ kind: 'duplicate' });
    expect(count()).toBe(5);
    expect(shown!.ids.length).toBe(2);
    expect(shown!.ids).not.toContain(marks[0]!.id);
  });

  it('chooses nothing any more when that is gone', () => {
    choose(marks[0]!.id);
    arranging.do({ kind: 'remove' });
    expect(count()).toBe(2);
    expect(shown).toBeNull();
    arranging.do({ kind: 'duplicate' });
    expect(count()).toBe(2);
  });

  it('colours marks and shapes, and leaves pictures and ink alone', () => {
    choose(marks[0]!.id, line.id);
    arranging.do({ kind: 'colour', colour: '#0b6f86' });
    expect(item(marks[0]!.id)).toEqual(jasmine.objectContaining({ colour: '#0b6f86' }));
    const box = {
      kind: 'shape',
      shape: 'box',
      layer: 'material',
      frame: { x: 0, y: 0, width: 9, height: 9, turn: 0 },
      outline: { colour: '#000000', width: 1 },
      fill: '#eeeeee',
    } as const;
    arranging.laid(page, box);
    const laid = materialOn(alone.board().pages.get(page)!).at(-1)!;
    choose(laid.id);
    arranging.do({ kind: 'colour', colour: '#c22f2f' });
    const now = item(laid.id);
    expect(now.kind === 'shape' && now.outline!.colour).toBe('#c22f2f');
    expect(now.kind === 'shape' && now.fill).toMatch(/^#f[0-9a-f]d/);
  });

  it('describes a picture, and nothing else', () => {
    const picture = {
      ...{ id: newId(), kind: 'item.add', page },
      item: {
        ...{ kind: 'picture', layer: 'material', order: 'a2', file: '0'.repeat(64), alt: 'DSC 17' },
        frame: { x: 0, y: 0, width: 9, height: 9, turn: 0 },
      },
    } as Operation;
    alone.doAll([picture]);
    choose(marks[0]!.id);
    arranging.do({ kind: 'describe' });
    expect(arranging.describing()).toBeNull();
    choose(picture.id);
    arranging.do({ kind: 'describe' });
    expect(arranging.describing()!.item.alt).toBe('DSC 17');
    arranging.described('The harbour at night');
    expect(arranging.describing()).toBeNull();
    expect(item(picture.id)).toEqual(jasmine.objectContaining({ alt: 'The harbour at night' }));
  });

  it('goes from thing to thing by keyboard, and off the page at its end', () => {
    const seen: (Id | undefined)[] = [];
    for (let i = 0; i < 4; i++) {
      arranging.chooseNext(page, 1);
      seen.push(shown?.ids[0]);
    }
    expect(seen).toEqual([marks[0]!.id, marks[1]!.id, line.id, undefined]);
    arranging.chooseNext(page, -1);
    expect(shown!.ids).toEqual([line.id]);
  });

  it('carries items over the clipboard as they are, ink too, and takes nothing else from it', () => {
    const items = itemsOn(alone.board().pages.get(page)!);
    const data = new DataTransfer();
    copyItems(data, items);
    expect(pastedItems(data)).toEqual(items);
    const other = new DataTransfer();
    other.setData('text/plain', 'low water');
    expect(pastedItems(other)).toBeNull();
    other.setData('text/x-cuaderno-items', btoa('rubbish'));
    expect(pastedItems(other)).toBeNull();
  });
});

describe('pictures that come together', () => {
  const sheet = { width: 595, height: 842 };
  const at = { x: 300, y: 400 };

  it('lie in true size where there is room, and never off the page', () => {
    expect(inRows([{ width: 72, height: 36 }], sheet, at)).toEqual([
      { x: 264, y: 382, width: 72, height: 36, turn: 0 },
    ]);
    for (const n of [1, 2, 3, 5, 12]) {
      const sizes = Array.from({ length: n }, (_, i) => ({ width: 900 + i * 70, height: 600 }));
      for (const f of inRows(sizes, sheet, { x: 590, y: 5 })) {
        expect(f.x).toBeGreaterThanOrEqual(0);
        expect(f.y).toBeGreaterThanOrEqual(0);
        expect(f.x + f.width).toBeLessThanOrEqual(sheet.width + 1e-6);
        expect(f.y + f.height).toBeLessThanOrEqual(sheet.height + 1e-6);
      }
    }
  });

  it('lie in rows that don’t touch, and keep their shape', () => {
    const frames = inRows(
      Array.from({ length: 5 }, () => ({ width: 800, height: 400 })),
      sheet,
      at,
    );
    expect(new Set(frames.map(({ y }) => Math.round(y))).size).toBe(2);
    frames.forEach((a, i) =>
      frames.slice(i + 1).forEach((b) => {
        const apart =
          a.x + a.width < b.x ||
          b.x + b.width < a.x ||
          a.y + a.height < b.y ||
          b.y + b.height < a.y;
        expect(apart).toBeTrue();
      }),
    );
    for (const { width, height } of frames) expect(width / height).toBeCloseTo(2, 6);
  });
});
