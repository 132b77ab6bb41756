import { TestBed } from '@angular/core/testing';
import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import type { Board, Item } from '@cuaderno/core/board';
import type { Frame } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { addMark, addPages, somePages } from '@cuaderno/core/testing';
import { handlesOf, sized, turnTo } from './handles';
import { layOut, pagesBetween } from './layout';
import type { Sample } from './gestures';
import { Laying } from './laying';
import type { Laid } from '../kinds/kind';
import { layingBy } from '../kinds/register';
import { Tools } from '../tool/tool';
import { markStyle } from '../kinds/mark/style';
import { shapeStyle } from '../kinds/shape/style';
import type { ShapeChoice } from '../kinds/shape/style';
import { Selecting } from './selecting';
import type { Selection } from './selecting';

const [sheet] = somePages(1);
const frame = { x: 100, y: 100, width: 80, height: 40, turn: 0 };
const mark = addMark(sheet!.id, { frame });
const fixed = addMark(sheet!.id, { frame: { ...frame, y: 300 }, fixed: true, order: 'a1' });

function boardOf(): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  for (const op of [addPages([sheet!]), mark, fixed])
    apply(op, draft, { by: newId(), at: 1, lesson: null });
  return draft.done();
}

const board = boardOf();
const run = layOut([...board.pages.values()]);
const placed = run.pages[0]!;
const camera = { x: 0, y: 0, zoom: 1 };
const seen = () => pagesBetween(run, 0, 2000);
/** A pointer at a place of the page; the zoom is 1. */
const at = (x: number, y: number, adds = false): Sample => ({
  x: placed.x + x,
  y: placed.y + y,
  pressure: 0.5,
  time: 0,
  device: 'mouse',
  adds,
});

describe('the tool that chooses', () => {
  let chosen: Selection | null;
  let moves: { from: Frame; to: Frame }[];
  let tool: Selecting;
  let lasso: boolean;
  let abilities: (item: Item) => boolean;

  beforeEach(() => {
    chosen = null;
    moves = [];
    lasso = false;
    abilities = () => true;
    tool = new Selecting(
      {
        camera: () => camera,
        seen,
        page: (id: Id) => board.pages.get(id),
        abilities: (item) => abilities(item),
        lasso: () => lasso,
        cropping: () => false,
      },
      {
        chose: (selection) => (chosen = selection),
        placed: (_selection, from, to) => moves.push({ from, to }),
        drawn: () => undefined,
        changed: () => undefined,
      },
    );
  });

  const drag = (from: Sample, ...to: Sample[]): void => {
    tool.down(from);
    for (const sample of to) tool.move([sample]);
    tool.up();
  };

  it('chooses what is touched, and nothing where nothing is', () => {
    drag(at(120, 110));
    expect(chosen).toEqual({ page: sheet!.id, ids: [mark.id] });
    expect(moves).toEqual([]);
    drag(at(400, 600));
    expect(chosen).toBeNull();
  });

  it('moves a thing in the drag that chooses it, but not by a twitch', () => {
    drag(at(120, 110), at(122, 111));
    expect(moves).toEqual([]);
    drag(at(120, 110), at(150, 150), at(173, 171));
    expect(moves.length).toBe(1);
    expect(moves[0]!.to).toEqual({ ...frame, x: 153, y: 161 });
  });

  it('snaps to the neighbour’s edge when it comes near', () => {
    drag(at(120, 110), at(123, 200));
    expect(moves[0]!.to.x).toBe(100);
  });

  it('chooses what is fixed, and leaves it where it is', () => {
    drag(at(120, 320), at(250, 500));
    expect(chosen!.ids).toEqual([fixed.id]);
    expect(moves).toEqual([]);
    expect(tool.view()).toEqual(jasmine.objectContaining({ fixed: true, handles: [] }));
  });

  it('chooses by a box and by a lasso, but not what is fixed', () => {
    drag(at(20, 20), at(300, 500));
    expect(chosen!.ids).toEqual([mark.id]);
    lasso = true;
    drag(at(500, 20));
    expect(chosen).toBeNull();
    drag(at(50, 60), at(220, 60), at(220, 180), at(60, 170));
    expect(chosen!.ids).toEqual([mark.id]);
  });

  it('adds and takes away with Shift or Ctrl', () => {
    drag(at(120, 110));
    drag(at(120, 320, true));
    expect(chosen!.ids).toEqual([mark.id, fixed.id]);
    drag(at(120, 110, true));
    expect(chosen!.ids).toEqual([fixed.id]);
  });

  it('lifts what is carried, and gives up when it is taken away in the middle', () => {
    tool.down(at(120, 110));
    tool.move([at(200, 230)]);
    expect([...tool.lifted()!.ids]).toEqual([mark.id]);
    tool.lost();
    expect(tool.lifted()).toBeNull();
    expect(moves).toEqual([]);
  });

  it('sizes by a corner, evenly for what has a shape of its own', () => {
    drag(at(120, 110));
    drag(at(180, 140), at(220, 145));
    const { to } = moves[0]!;
    expect([to.x, to.y, to.width, to.height]).toEqual([100, 100, 120, 60]);
  });

  it('turns by the handle above, evenly where it is near', () => {
    drag(at(120, 110));
    const turn = tool.view()!.handles.find(({ kind }) => kind === 'turn')!;
    drag(at(turn.at.x, turn.at.y), at(300, 121));
    expect(moves[0]!.to.turn).toBe(90);
  });
});

describe('handles', () => {
  it('leave the corner across from them where it is, however the frame is turned', () => {
    for (const turn of [0, 33, 90, 200]) {
      const from = { ...frame, turn };
      const items = [{ ...mark, kind: 'mark', frame: from } as unknown as Item];
      const corner = handlesOf(items, from, 1).find(
        (h) => h.kind === 'size' && h.across === 1 && h.down === 1,
      )!;
      const across = handlesOf(items, from, 1).find(
        (h) => h.kind === 'size' && h.across === -1 && h.down === -1,
      )!;
      const to = sized(
        from,
        { across: 1, down: 1 },
        { x: corner.at.x + 20, y: corner.at.y + 9 },
        false,
        1,
      );
      const after = handlesOf(items, to, 1).find(
        (h) => h.kind === 'size' && h.across === -1 && h.down === -1,
      )!;
      expect(Math.hypot(after.at.x - across.at.x, after.at.y - across.at.y)).toBeLessThan(1e-6);
    }
  });

  it('never turn a frame inside out', () => {
    const to = sized(frame, { across: 1, down: 1 }, { x: 0, y: 0 }, false, 4);
    expect([to.width, to.height]).toEqual([4, 4]);
  });

  it('turn freely between the even angles', () => {
    expect(turnTo(frame, { x: 240, y: 160 })).toBeCloseTo(111.8, 1);
    expect(turnTo(frame, { x: 240, y: 121 })).toBe(90);
  });
});

describe('the tools that lay shapes and marks', () => {
  let laid: Laid[];

  let edited: object[];

  function tool(name: 'shape' | 'mark', set: (tools: Tools) => void = () => undefined): Laying {
    [laid, edited] = [[], []];
    const tools = TestBed.runInInjectionContext(() => new Tools());
    tools.tool.set(name);
    set(tools);
    return new Laying(
      {
        ...{ camera: () => camera, seen, abilities: () => true },
        lay: layingBy(tools),
        edit: () => null,
      },
      {
        laid: (_page, item) => laid.push(item),
        edited: (_page, _id, to) => edited.push(to),
        changed: () => undefined,
      },
    );
  }
  const laying = (shape: ShapeChoice): Laying => tool('shape', () => shapeStyle.set({ shape }));
  const drag = (laying: Laying, ...samples: Sample[]): void => {
    expect(laying.down(samples[0]!)).toBeTrue();
    for (const sample of samples.slice(1)) laying.move([sample]);
    laying.up();
  };

  it('lay a box as it is drawn, and one of usual size where it is only touched', () => {
    drag(laying('box'), at(50, 60), at(20, 30), at(10, 20));
    expect(laid[0]!.frame).toEqual({ x: 10, y: 20, width: 40, height: 40, turn: 0 });
    drag(laying('box'), at(200, 200));
    expect([laid[0]!.frame.width, laid[0]!.frame.height]).toEqual([120, 80]);
  });

  it('make a line level where it nearly is', () => {
    drag(laying('arrow'), at(50, 60), at(150, 62));
    const { frame: f, ...line } = laid[0] as Extract<Laid, { kind: 'shape' }>;
    expect(f.height).toBe(1);
    expect(line.points!.map(([, y]) => y)).toEqual([0, 0]);
    expect(line.heads).toBe('end');
  });

  it('find a polygon’s corners in what was drawn round', () => {
    const corners = [
      [50, 50],
      [150, 55],
      [160, 140],
      [60, 150],
    ] as const;
    const path: Sample[] = [];
    corners.forEach(([x, y], i) => {
      const [u, v] = corners[(i + 1) % 4]!;
      for (let t = 0; t < 1; t += 0.1)
        path.push(at(x + (u - x) * t + (i % 2), y + (v - y) * t + ((i * 7) % 3)));
    });
    drag(laying('polygon'), ...path);
    const polygon = laid[0] as Extract<Laid, { kind: 'shape' }>;
    expect(polygon.points!.length).toBe(4);
  });

  it('lay a mark where it is touched, and nothing beside the page', () => {
    const stars = (): Laying => tool('mark', () => markStyle.set({ mark: 'star', ink: 'poppy' }));
    drag(stars(), at(100, 100));
    expect(laid[0]!.frame).toEqual({ x: 85, y: 85, width: 30, height: 30, turn: 0 });
    expect(stars().down(at(-15, 40))).toBeFalse();
  });
});
