import { TestBed } from '@angular/core/testing';
import type { NumberLineSpec } from '@cuaderno/core/kinds';
import { nearestTick, placeOfNumber } from '@cuaderno/core/kinds';
import { Screen } from '../../../testing/screen';
import { Tools } from '../../tool/tool';
import { numberLine } from './index';
import { NumberLineOptions } from './options';
import type { TraitsOf } from '../kind';
import { marking, numberLineStyle } from './style';

const TENTHS = { from: 0, to: 1, step: 0.1, labels: 'decimal' } as const;

function line(change: Partial<NumberLineSpec> = {}): NumberLineSpec {
  return {
    ...{ kind: 'number-line', order: 'a0', layer: 'material', ...TENTHS, colour: '#000000' },
    ...{ accent: '#c22f2f', points: [], jumps: [], intervals: [] },
    frame: { x: 40, y: 60, width: 500, height: 90, turn: 0 },
    ...change,
  };
}

describe('the tool for number lines', () => {
  afterEach(() => marking.set(null));

  it('lays one as wide as it is drawn, with the numbers that were chosen', () => {
    numberLineStyle.set(TENTHS);
    const tools = TestBed.runInInjectionContext(() => new Tools());
    const from = { x: 100, y: 200 };
    const drawn = numberLine.lay!(
      { from, points: [from, { x: 400, y: 204 }], zoom: 1, touch: false },
      tools,
    )!;
    expect(drawn).toEqual(jasmine.objectContaining(TENTHS));
    expect([drawn.frame.x, drawn.frame.width]).toEqual([100, 300]);
    const touched = numberLine.lay!({ from, points: [from], zoom: 1, touch: true }, tools)!;
    expect(touched.frame.width).toBe(400);
  });

  it('marks one that lies there at its ticks, and only once marking is chosen', () => {
    const one = line();
    expect(numberLine.edit!(one)).toBeNull();
    marking.set('jump');
    const tools = TestBed.runInInjectionContext(() => new Tools());
    const beside = { x: 5, y: 5 };
    expect(
      numberLine.lay!({ from: beside, points: [beside], zoom: 1, touch: true }, tools),
    ).toBeNull();
    const near = (value: number): { x: number; y: number } => {
      const { x, y } = placeOfNumber(one, value);
      return { x: x + 9, y: y - 20 };
    };
    expect(nearestTick(one, near(0.3))).toBe(0.3);
    expect(numberLine.edit!(one)!(near(0), near(0.3))).toEqual({ jumps: [{ from: 0, to: 0.3 }] });
  });

  it('gives its colour to what is marked; a bare line takes it itself', () => {
    expect(numberLine.recoloured(line(), '#1d6b3f')).toEqual({ colour: '#1d6b3f' });
    const marked = line({ points: [{ at: 0.5, open: false }] });
    expect(numberLine.recoloured(marked, '#1d6b3f')).toEqual({ accent: '#1d6b3f' });
    expect(numberLine.colour!(marked)).toBe('#c22f2f');
  });
});

describe('what can be chosen for a number line', () => {
  const type = async (
    screen: Screen<NumberLineOptions>,
    n: number,
    text: string,
  ): Promise<void> => {
    const field = screen.element.querySelectorAll('input')[n]!;
    field.value = text;
    field.dispatchEvent(new Event('change'));
    await screen.settles();
  };

  it('is for the next one while the tool is in hand: fractions as they are typed, and what can’t be is said', async () => {
    numberLineStyle.set({ from: 0, to: 10, step: 1, labels: 'whole' });
    const screen = await Screen.show(NumberLineOptions, {}, {});
    await type(screen, 2, '1/4');
    expect(numberLineStyle.value().step).toBe(0.25);
    await type(screen, 1, 'ten');
    expect(screen.text).toContain('Write a number such as');
    await type(screen, 1, '-3');
    expect(screen.text).toContain('larger number than it begins');
    await type(screen, 2, '0.001');
    expect(screen.text).toContain('more than 400 ticks');
    expect(numberLineStyle.value()).toEqual({ from: 0, to: 10, step: 0.25, labels: 'whole' });
    await type(screen, 1, '2');
    expect(screen.element.querySelector('[role=alert]')).toBeNull();
  });

  it('changes the one that is chosen, and takes off it what is marked', async () => {
    const changes: object[] = [];
    const item = line({ points: [{ at: 0.5, open: false }] });
    const change = (to: TraitsOf<NumberLineSpec>): void => void changes.push(to(item));
    const screen = await Screen.show(NumberLineOptions, { items: [item], change }, {});
    await type(screen, 0, '−1');
    await screen.press('Clear the line');
    expect(changes).toEqual([{ from: -1 }, { points: [], jumps: [], intervals: [] }]);
  });

  it('names what a touch does, one at a time', async () => {
    const screen = await Screen.show(NumberLineOptions, {}, {});
    await screen.press('Open point');
    expect(marking()).toBe('open-point');
    expect(screen.button('Open point')!.getAttribute('aria-pressed')).toBe('true');
    marking.set(null);
  });
});
