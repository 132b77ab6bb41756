import { keepTools, keptTools } from './kept-tools';
import type { KeptTools } from './kept-tools';
import { FIRST_PRESETS } from './presets';

const TOOLS: KeptTools = {
  tool: 'number-line',
  pen: { ink: 'poppy', width: 5 },
  highlighter: { ink: 'lemon', width: 16 },
  ...{ lasso: true, rubs: false, leavesArrow: true, lamp: 'box', side: 'right', lesson: null },
  presets: [...FIRST_PRESETS],
};

describe('what a browser kept of the tools in hand', () => {
  afterEach(() => localStorage.clear());
  const put = (value: unknown): void =>
    localStorage.setItem(
      'cuaderno.tools',
      typeof value === 'string' ? value : JSON.stringify(value),
    );

  it('is as it was', () => {
    keepTools(TOOLS);
    expect(keptTools()).toEqual(TOOLS);
  });

  it('is taken piece by piece, and nothing of what can’t be so', () => {
    put({
      ...TOOLS,
      ...{
        tool: 'saw',
        pen: { ink: 'poppy', width: 1e9 },
        presets: [],
        lamp: 'star',
        lasso: 'yes',
      },
    });
    const rest: Partial<KeptTools> = { ...TOOLS };
    for (const wrong of ['tool', 'pen', 'presets', 'lamp', 'lasso'] as const) delete rest[wrong];
    expect(keptTools()).toEqual(rest);
    for (const hostile of [
      '',
      'null',
      '[1]',
      '{"tool":{"toString":1}}',
      '{',
      '{"__proto__":{"tool":"pen"}}',
    ]) {
      put(hostile);
      expect(keptTools()).toEqual({});
    }
  });
});
