import type { MarkSpec, ShapeSpec, TextSpec } from '@cuaderno/core/kinds';
import { Screen } from '../../testing/screen';
import type { TraitsOf, Written } from './kind';
import { MarkOptions } from './mark/options';
import { markStyle } from './mark/style';
import { NextStyle } from './next-style';
import { ShapeOptions } from './shape/options';
import { shapeStyle } from './shape/style';
import { TextOptions } from './text/options';
import { textStyle } from './text/style';
import * as z from 'zod';

const PLACE = {
  order: 'a0',
  layer: 'ink',
  frame: { x: 0, y: 0, width: 90, height: 40, turn: 0 },
} as const;
const box: ShapeSpec = {
  ...{ ...PLACE, kind: 'shape', shape: 'box', fill: null },
  outline: { colour: '#c22f2f', width: 5 },
};
const line: ShapeSpec = {
  ...{ ...PLACE, kind: 'shape', shape: 'line', fill: null, heads: 'end' },
  ...{
    outline: { colour: '#000000', width: 1.2, dashed: true },
    points: [
      [0, 0],
      [1, 1],
    ],
  },
};

describe('what can be chosen of shapes', () => {
  it('is which one is drawn next, and how', async () => {
    const screen = await Screen.show(ShapeOptions, { tool: 'shape' }, {});
    await screen.press('Ellipse');
    shapeStyle.set({ filled: false, dashed: false });
    await screen.press('Filled');
    expect(shapeStyle.value()).toEqual(
      jasmine.objectContaining({ shape: 'ellipse', filled: true }),
    );
    expect(screen.button('Ellipse')!.getAttribute('aria-pressed')).toBe('true');
  });

  it('is how those look that are chosen, the first standing for all; a line is never filled', async () => {
    const changes: object[] = [];
    const change = (to: TraitsOf<ShapeSpec>): void => void changes.push(to(box), to(line));
    const screen = await Screen.show(ShapeOptions, { items: [box, line], change }, {});
    expect(screen.button('Ellipse')).toBeUndefined();
    await screen.press('Filled');
    await screen.press('Dashed');
    expect(changes).toEqual([
      { outline: box.outline, fill: '#f5dede' },
      { outline: line.outline },
      { outline: { ...box.outline, dashed: true } },
      { outline: line.outline },
    ]);
  });
});

describe('what can be chosen of marks', () => {
  it('is which one is laid next, or those are that are chosen', async () => {
    const screen = await Screen.show(MarkOptions, { tool: 'mark' }, {});
    await screen.press('Star');
    expect(markStyle.value().mark).toBe('star');
    const mark: MarkSpec = { ...PLACE, kind: 'mark', mark: 'tick', colour: '#000000' };
    let changed: object | null = null;
    const change = (to: TraitsOf<MarkSpec>): void => void (changed = to(mark));
    screen.fixture.componentRef.setInput('items', [mark]);
    screen.fixture.componentRef.setInput('change', change);
    await screen.settles();
    expect(screen.button('Tick')!.getAttribute('aria-pressed')).toBe('true');
    await screen.press('Heart');
    expect(changed as unknown).toEqual({ mark: 'heart' });
  });
});

describe('what can be chosen of texts', () => {
  const text: TextSpec = {
    ...{ ...PLACE, kind: 'text', font: 'plain', size: 20, colour: '#000000', align: 'start' },
    ...{ slip: null, text: [{ list: null, runs: [{ text: 'Low water at ten' }] }], lines: [] },
  } as unknown as TextSpec;

  it('is how the next one looks; only a slip has a colour of its own', async () => {
    const screen = await Screen.show(TextOptions, { tool: 'text' }, {});
    await screen.press('In the middle');
    expect(textStyle.value().align).toBe('middle');
    expect(screen.button('Mint slip')).toBeUndefined();
    screen.fixture.componentRef.setInput('tool', 'slip');
    await screen.settles();
    await screen.press('Mint slip');
    expect(textStyle.value().slip).toBe('#d5f0d8');
  });

  it('is how those look that are chosen: their lines are broken anew', async () => {
    const changes: object[] = [];
    const change = (to: TraitsOf<TextSpec>): void => void changes.push(to(text));
    const screen = await Screen.show(TextOptions, { items: [text], change }, {});
    const size = screen.element.querySelector('select')!;
    size.value = '40';
    size.dispatchEvent(new Event('change'));
    const [to] = changes as [Partial<TextSpec>];
    expect(to.size).toBe(40);
    expect(to.slip).toBeNull();
    // Twice as large, words that had room on one or two lines need more.
    expect(to.lines!.length).toBeGreaterThan(1);
  });

  it('is what is being written, before all else', async () => {
    const said: object[] = [];
    const written: Written = {
      ...{ text, restyle: (to) => void said.push(to) },
      mark: (mark) => void said.push({ mark }),
    };
    const screen = await Screen.show(TextOptions, { tool: 'pen', written }, {});
    await screen.press('For titles');
    await screen.press('Bold');
    expect(said).toEqual([{ font: 'title' }, { mark: 'bold' }]);
  });
});

describe('what the next of a kind is like', () => {
  const KEY = 'cuaderno.trial';
  const schema = z.object({ size: z.number().max(9) });
  afterEach(() => localStorage.removeItem(KEY));
  const fresh = (): NextStyle<{ size: number }> => new NextStyle('trial', schema, { size: 2 });

  it('stays as it was left, on this machine', () => {
    fresh().set({ size: 5 });
    expect(fresh().value()).toEqual({ size: 5 });
  });

  it('is as at first where something else was kept', () => {
    for (const kept of ['', 'null', '{"size":10}', '{', '[5]', '{"__proto__":{"size":5}}']) {
      localStorage.setItem(KEY, kept);
      expect(fresh().value()).toEqual({ size: 2 });
    }
  });
});
