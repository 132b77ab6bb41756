import { A4, MM } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { isReadableTint } from '@cuaderno/core/ink';
import type { PageSpec, Paper } from '@cuaderno/core/board';
import { Screen } from '../../testing/screen';
import { PageDialog } from './page-dialog';
import type { PageSetup } from './page-dialog';

const page = (paper: Paper, change: Partial<PageSpec> = {}): PageSpec => ({
  id: newId(),
  order: 'a0',
  name: 'Ebb',
  ...A4,
  paper,
  ...change,
});

describe('the sheet on which a page’s paper is chosen', () => {
  let screen: Screen<PageDialog>;
  let chosen: PageSetup[];

  async function ask(spec: PageSpec, count = 1): Promise<void> {
    chosen = [];
    screen = await Screen.show(PageDialog, { page: spec, number: '3', count }, {});
    screen.fixture.componentInstance.chosen.subscribe((setup) => chosen.push(setup));
    await screen.settles();
  }

  const all = <T extends Element>(selector: string): T[] => [
    ...document.querySelectorAll<T>(selector),
  ];
  const press = async (label: string): Promise<void> => {
    all<HTMLButtonElement>('button')
      .find((b) => (b.getAttribute('aria-label') ?? b.textContent).trim() === label)!
      .click();
    await screen.settles();
  };
  const type = async (name: string, value: string): Promise<void> => {
    const field = all<HTMLInputElement>(`input[name=${name}], input#page-${name}`)[0]!;
    field.value = value;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('blur'));
    await screen.settles();
  };
  const use = async (): Promise<PageSetup> => {
    await press('Apply');
    return chosen[0]!;
  };

  it('changes nothing where nothing was chosen, not even by rounding', async () => {
    const odd = page({ kind: 'ruled', spacing: 23 }, { width: 500.123, height: 333.3 });
    await ask(odd);
    const { name, width, height, paper } = await use();
    expect({ name, width, height }).toEqual({ name: 'Ebb', width: 500.123, height: 333.3 });
    expect(paper.kind).toBe('ruled');
    expect('spacing' in paper && paper.spacing).toBeCloseTo(23, 0);
  });

  it('gives a page squares of 5 mm with one touch, a tint with another', async () => {
    await ask(page({ kind: 'plain' }));
    await press('Squared');
    await press('Mist');
    await type('name', '  Neap ');
    expect(await use()).toEqual({
      name: 'Neap',
      ...A4,
      paper: { kind: 'squared', spacing: 5 * MM, tint: '#deebf7' },
      forNew: false,
    });
  });

  it('turns a page on its side, and takes a size of one’s own', async () => {
    await ask(page({ kind: 'plain' }));
    await press('Landscape');
    await type('height', '100');
    const { width, height } = await use();
    expect(width).toBeCloseTo(A4.height, 6);
    expect(height).toBeCloseTo(100 * MM, 6);
  });

  it('makes a tint of one’s own light enough, and says so', async () => {
    await ask(page({ kind: 'plain' }));
    const own = all<HTMLInputElement>('input[type=color]')[0]!;
    own.value = '#aa0000';
    own.dispatchEvent(new Event('change'));
    await screen.settles();
    expect(document.body.textContent).toContain('light enough to read every ink');
    const { tint } = (await use()).paper;
    expect(tint).not.toBe('#aa0000');
    expect(isReadableTint(tint!)).toBeTrue();
  });

  it('sets up several at once, leaves them their names, and can be for new pages', async () => {
    await ask(page({ kind: 'plain' }), 4);
    expect(document.body.textContent).toContain('4 pages');
    await press('Dotted');
    all<HTMLInputElement>('input[type=checkbox]')[0]!.click();
    await screen.settles();
    const setup = await use();
    expect('name' in setup).toBeFalse();
    expect(setup.forNew).toBeTrue();
    expect(setup.paper.kind).toBe('dotted');
  });

  it('leaves an imported page its print and size, and takes its tint away again', async () => {
    const print: Paper = {
      kind: 'pdf',
      file: 'a'.repeat(64),
      number: 2,
      box: [0, 0, 300, 400],
      rotate: 0,
      unit: 1,
    };
    await ask(page({ ...print, tint: '#fdf6e0' }));
    expect(all('p-inputnumber').length).toBe(0);
    expect(document.body.textContent).toContain('its print and size stay');
    await press('No tint');
    expect((await use()).paper).toEqual(print);
  });
});
