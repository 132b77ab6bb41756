import { somePages } from '@cuaderno/core/testing';
import type { Lamp, Place } from '@cuaderno/core/features';
import type { Sample } from './gestures';
import { LampTool, PointerDot } from './showing-tools';

const [spec] = somePages(1);
const page = { ...spec!, removed: null, items: new Map() };
const surface = {
  camera: () => ({ x: 0, y: 0, zoom: 2 }),
  seen: () => [{ page, x: 10, y: 10, index: 0 }],
};
const at = (x: number, y: number): Sample => ({
  x: (x + 10) * 2,
  y: (y + 10) * 2,
  pressure: 0.5,
  time: 0,
  device: 'mouse',
  adds: false,
});

describe('the pointer', () => {
  let told: (Place | null)[];
  let left: Place[];
  let leaves: boolean;
  let now: number;
  let dot: PointerDot;

  beforeEach(() => {
    [told, left, leaves, now] = [[], [], false, 0];
    dot = new PointerDot(
      { ...surface, leaves: () => leaves },
      (place) => told.push(place),
      (place) => left.push(place),
      () => now,
    );
  });

  it('is where the hand is, and gone when that leaves the page', () => {
    dot.over(at(5, 6));
    now = 5;
    dot.over(at(7, 8));
    now = 20;
    dot.over(at(9, 9));
    dot.over({ x: -50, y: 0 });
    dot.over({ x: -60, y: 0 });
    expect(told.map((place) => place && [place.x, place.y])).toEqual([[5, 6], [9, 9], null]);
  });

  it('leaves an arrow where it touches', () => {
    leaves = true;
    expect(dot.down(at(30, 40))).toBeTrue();
    dot.move([at(50, 60)]);
    expect(left.map(({ x, y }) => [x, y])).toEqual([[30, 40]]);
    expect(told).toEqual([]);
  });
});

describe('the lamp', () => {
  let lamp: Lamp | null;
  let rests: boolean[];
  let tool: LampTool;

  beforeEach(() => {
    [lamp, rests] = [null, []];
    tool = new LampTool({ ...surface, lamp: () => lamp, shape: () => 'round' }, (next, final) => {
      lamp = next;
      rests.push(final);
    });
  });

  it('is lit where it is drawn, and with a touch in its usual size', () => {
    tool.down(at(100, 100));
    tool.move([at(60, 160)]);
    tool.up();
    expect(lamp).toEqual({ page: page.id, shape: 'round', x: 60, y: 100, width: 40, height: 60 });
    expect(rests).toEqual([false, true]);
    tool.down(at(300, 300));
    tool.up();
    expect([lamp!.x + lamp!.width / 2, lamp!.y + lamp!.height / 2]).toEqual([300, 300]);
  });

  it('has its usual size where a hand only slipped: a speck of light would leave all in the dark', () => {
    tool.down(at(300, 300));
    tool.move([at(309, 309)]);
    tool.up();
    expect([lamp!.x + lamp!.width / 2, lamp!.y + lamp!.height / 2]).toEqual([300, 300]);
    // 220 px, at two pixels a point.
    expect(lamp!.width).toBe(110);
  });

  it('is moved by what it lights, and drawn anew beside that', () => {
    tool.down(at(100, 100));
    tool.move([at(200, 200)]);
    tool.up();
    tool.down(at(150, 150));
    tool.move([at(170, 140)]);
    tool.up();
    expect([lamp!.x, lamp!.y, lamp!.width]).toEqual([120, 90, 100]);
    // A corner of its frame isn't lit by a round lamp.
    tool.down(at(122, 92));
    tool.move([at(162, 132)]);
    tool.up();
    expect(lamp!.width).toBe(40);
  });
});
