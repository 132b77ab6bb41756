import type { Point } from '@cuaderno/core/geometry';
import type { Tool } from '../tool/tool';
import type { Sample } from './gestures';
import { KeyCursor } from './key-cursor';

describe('the cursor that keys move', () => {
  let element: HTMLElement;
  let tool: Tool;
  let writes: boolean;
  let chosen: boolean;
  let told: string[];
  let cursor: KeyCursor;
  let panned: Point[];

  const place = ({ x, y }: Sample): string => `${x},${y}`;
  beforeEach(() => {
    [tool, writes, chosen, told, panned] = ['pen', true, false, [], []];
    element = document.createElement('div');
    element.tabIndex = 0;
    document.body.append(element);
    element.focus();
    cursor = new KeyCursor({
      tool: () => tool,
      writes: () => writes,
      keepsArrows: () => chosen,
      size: () => ({ width: 400, height: 300 }),
      pan: (x, y) => void (x || y ? panned.push({ x, y }) : 0),
      penDown: (sample) => told.push(`down ${place(sample)}`) > 0,
      penMove: ([sample]) => void told.push(`move ${place(sample!)}`),
      penUp: () => void told.push('up'),
      penLost: () => void told.push('lost'),
      partOf: ({ x, y }) => (x < 50 ? null : { x: x / 400, y: y / 300 }),
      under: ({ y }) => (y < 20 ? 'Tick' : ''),
    });
    cursor.listen(element);
  });
  afterEach(() => element.remove());

  /** Whether the key was used up. */
  const press = (key: string, more: KeyboardEventInit = {}): boolean =>
    !element.dispatchEvent(
      new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }),
    );

  it('comes with Enter into the middle, and leaves arrows to the page until then', () => {
    expect(press('ArrowLeft')).toBeFalse();
    expect(press('Enter')).toBeTrue();
    expect(cursor.shown()).toEqual({ at: { x: 200, y: 150 }, down: false });
    expect(told).toEqual([]);
    expect(cursor.words()).toBe('50 % across, 50 % down the page');
    press('Enter');
    expect(cursor.words()).toContain('Down, ');
  });

  it('draws: put down, moved by steps, taken up', () => {
    press('Enter');
    press('Enter');
    press('ArrowRight');
    press('ArrowDown', { shiftKey: true });
    press('ArrowUp', { altKey: true });
    expect(cursor.shown()!.down).toBeTrue();
    press('Enter');
    expect(told).toEqual(['down 200,150', 'move 210,150', 'move 210,210', 'move 210,209', 'up']);
    expect(cursor.shown()!.down).toBeFalse();
  });

  it('does at once what is done at one place', () => {
    tool = 'slip';
    press('Enter');
    press('ArrowRight');
    press('Enter');
    expect(told).toEqual(['down 210,150', 'up']);
    expect(cursor.shown()!.down).toBeFalse();
  });

  it('stays in the window: the page moves under it, but never under what is being drawn', () => {
    press('Enter');
    for (let i = 0; i < 4; i++) press('ArrowRight', { shiftKey: true });
    expect(cursor.shown()!.at).toEqual({ x: 360, y: 150 });
    expect(panned).toEqual([
      { x: -20, y: 0 },
      { x: -60, y: 0 },
    ]);
    press('Enter');
    press('ArrowRight');
    expect(panned.length).toBe(2);
  });

  it('is put away by Escape, by a pointer, and when the focus goes; what was begun is given up', () => {
    for (const away of [
      () => press('Escape'),
      () => element.dispatchEvent(new PointerEvent('pointerdown')),
      () => element.blur(),
    ]) {
      element.focus();
      told = [];
      press('Enter');
      press('Enter');
      away();
      expect(told.at(-1)).toBe('lost');
      expect(cursor.shown()).toBeNull();
    }
  });

  it('leaves keys alone that mean what is chosen, and does nothing without a pen', () => {
    tool = 'select';
    press('Enter');
    chosen = true;
    expect(press('ArrowLeft')).toBeFalse();
    expect(press('Escape')).toBeFalse();
    expect(press('Enter')).toBeFalse();
    chosen = false;
    press('Escape');
    writes = false;
    expect(press('Enter')).toBeFalse();
    tool = 'hand';
    writes = true;
    expect(press('Enter')).toBeFalse();
  });
});
