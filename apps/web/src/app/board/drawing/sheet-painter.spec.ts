import { BoardDraft, emptyBoard, pileOf } from '@cuaderno/core/board';
import { layCover, liftCovers, onItsSheet } from '@cuaderno/core/edits';
import { newId } from '@cuaderno/core/id';
import { encodeStroke } from '@cuaderno/core/ink';
import { apply, operation } from '@cuaderno/core/ops';
import type { Board, Page } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { Change, Operation } from '@cuaderno/core/ops';
import { addPages, somePages } from '@cuaderno/core/testing';
import type { Pictures } from './pictures';
import { SheetPainters } from './sheet-painter';

describe('the pile on a page, as pictures', () => {
  const [spec] = somePages(1);
  const pictures = { get: () => null, announce: () => undefined } as unknown as Pictures;
  const PAPER = [255, 255, 255];
  let board: Board;
  let painters: SheetPainters;

  const page = (): Page => board.pages.get(spec!.id)!;

  function make(changes: readonly (Change | Operation)[]): Id[] {
    return changes.map((change) => {
      const placed = onItsSheet(board, change);
      const op = 'id' in placed ? placed : operation(placed);
      const draft = new BoardDraft(board);
      apply(op, draft, { by: newId(), at: 1, lesson: null });
      board = draft.done();
      return op.id;
    });
  }

  /** A line across the page at this height. */
  function line(y: number, tool: 'pen' | 'highlighter' = 'pen'): void {
    const points = [40, 200, 400].map((x, time) => ({ x, y, pressure: 0.5, time }));
    const style =
      tool === 'pen'
        ? ({ tool, ink: 'coal', width: 6 } as const)
        : ({ tool, ink: 'lemon', width: 20 } as const);
    make([{ kind: 'ink.add', page: spec!.id, ink: encodeStroke({ style, points }) }]);
  }

  /** Colours at these places, with all drawn on white, a pixel a point. */
  function seen(places: readonly (readonly [number, number])[]): number[][] {
    expect(painters.show(pileOf(page()), new Set())).toBeTrue();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [600, 850];
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#fff';
    context.fillRect(0, 0, 600, 850);
    painters.draw(context, { x: 0, y: 0, width: 600, height: 850 }, null);
    return places.map(([x, y]) => [...context.getImageData(x, y, 1, 1).data].slice(0, 3));
  }

  const isDark = (colour: number[] | undefined): boolean => Math.max(...colour!) < 100;

  beforeEach(() => {
    board = emptyBoard(newId());
    make([addPages([spec!])]);
    painters = new SheetPainters(600, 850, { x: 0, y: 0, scale: 1 }, pictures);
  });

  it('has ink under a sheet hidden, and ink on it seen; lifted, the other way round', () => {
    line(100);
    const covers = make(layCover(page(), 'whole', '#dff2e1'));
    line(200);
    const places = [
      [200, 100],
      [200, 200],
      [200, 300],
    ] as const;
    const laid = seen(places);
    expect(laid[0]).toEqual([223, 242, 225]);
    expect(isDark(laid[1])).toBeTrue();
    make(liftCovers(board, spec!.id, covers, true));
    const lifted = seen(places);
    expect(isDark(lifted[0])).toBeTrue();
    expect(lifted.slice(1)).toEqual([PAPER, PAPER]);
    make(liftCovers(board, spec!.id, covers, false));
    expect(seen(places)).toEqual(laid);
  });

  it('has a highlighter mix with the sheet it is on, and with no other', () => {
    make(layCover(page(), 'whole', '#deebf7'));
    line(150, 'highlighter');
    const [[r, g, b]] = seen([[200, 150]]) as [[number, number, number]];
    // Lemon over mist, each a part of white: darker than either.
    expect(r).toBeLessThanOrEqual(222);
    expect(g).toBeLessThanOrEqual(235);
    expect(b).toBeLessThan(200);
  });

  it('draws what is added to one sheet on top of what is there, and stops where it is told to', () => {
    make(layCover(page(), 'whole', '#ffffff'));
    for (let y = 100; y < 400; y += 20) line(y);
    let left = 4;
    expect(painters.show(pileOf(page()), new Set(), () => left-- <= 0)).toBeFalse();
    expect(isDark(seen([[200, 380]])[0])).toBeTrue();
    line(500);
    const [first, last] = seen([
      [200, 100],
      [200, 500],
    ]);
    expect([isDark(first), isDark(last)]).toEqual([true, true]);
  });

  it('shows the tutor by paleness and a broken frame what nobody else sees, ink and material alike', () => {
    for (const [i, layer] of (['ink', 'material'] as const).entries())
      for (const [k, hidden] of [false, true].entries())
        make([
          {
            kind: 'item.add',
            page: spec!.id,
            item: {
              ...{ kind: 'text', layer, order: `a${i}`, hidden },
              frame: { x: 40 + 200 * k, y: 40 + 200 * i, width: 120, height: 80, turn: 0 },
              ...{ text: [{ runs: [{ text: 'ebb' }] }], font: 'plain', size: 12, align: 'start' },
              ...{ colour: '#000000', slip: '#c08000', lines: [] },
            },
          },
        ]);
    const [ink, hiddenInk, material, hiddenMaterial] = seen([
      [100, 90],
      [300, 90],
      [100, 290],
      [300, 290],
    ]);
    expect(ink).toEqual(material);
    expect(hiddenInk).toEqual(hiddenMaterial);
    expect(hiddenInk![2]).toBeGreaterThan(ink![2]! + 80);
    // Somewhere along its edge there is a dash.
    const edge = seen(Array.from({ length: 12 }, (_, i) => [245 + i, 40] as const));
    expect(edge.some(([, , blue]) => blue! < hiddenInk![2]!)).toBeTrue();
  });
});
