import { problem, Screen } from '../../testing/screen';
import { ChooserPanel } from './chooser-panel';
import type { PagesChoice } from './chooser-panel';
import type { AssetInfo, MaterialsInfo } from '../store/shapes';

const asset = (id: string, name: string, more: Partial<AssetInfo> = {}): AssetInfo => ({
  id,
  folder: null,
  name,
  kind: 'picture',
  file: 'a'.repeat(64),
  bytes: 1,
  pages: null,
  width: 10,
  height: 10,
  length: 0,
  createdAt: 0,
  pictured: false,
  ...more,
});

const INFO: MaterialsInfo = {
  folders: [
    { id: 'sky', parent: null, name: 'Sky' },
    { id: 'winter', parent: 'sky', name: 'Winter' },
  ],
  assets: [
    asset('a', 'Orion.png', { folder: 'winter', createdAt: 1 }),
    asset('b', 'Ebb.pdf', { kind: 'pdf', pages: 2, createdAt: 2 }),
    asset('c', 'Deck.pptx', { kind: 'slides' }),
  ],
  shares: [],
  shared: [
    {
      owner: { id: 'sigrid', name: 'Sigrid' },
      folders: [{ id: 'knots', parent: null, name: 'Knots' }],
      assets: [asset('d', 'Bowline.png', { folder: 'knots' })],
    },
  ],
  binned: 0,
};

describe('materials beside a board', () => {
  let screen: Screen<ChooserPanel>;

  async function show(answer: unknown = INFO): Promise<void> {
    screen = await Screen.show(ChooserPanel, {}, { 'GET /materials': answer });
    screen.element.style.height = '700px';
    window.dispatchEvent(new Event('resize'));
    await drawn();
  }
  const drawn = async (): Promise<void> => {
    await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    await screen.settles();
  };
  const names = (): string[] =>
    [...screen.element.querySelectorAll('.row .name')].map((e) => e.textContent.trim());
  const set = async (selector: string, value: string, event: string): Promise<void> => {
    const field = screen.element.querySelector<HTMLInputElement>(selector)!;
    field.value = value;
    field.dispatchEvent(new Event(event));
    await drawn();
  };

  it('are those that can be laid on pages, the newest first, others’ among them', async () => {
    await show();
    expect(names()).toEqual(['Ebb.pdf', 'Orion.png', 'Bowline.png', 'Deck.pptx']);
  });

  it('are found by words, also those of their folders', async () => {
    await show();
    await set('input', 'winter', 'input');
    expect(names()).toEqual(['Orion.png']);
    await set('input', 'nothing', 'input');
    expect(screen.text).toContain('Nothing is called that');
  });

  it('are chosen from one folder and those within', async () => {
    await show();
    await screen.choose('From which folder', 'sky');
    await drawn();
    expect(names()).toEqual(['Orion.png']);
    await screen.choose('From which folder', 'knots');
    await drawn();
    expect(names()).toEqual(['Bowline.png']);
  });

  it('are laid with one touch, or carried', async () => {
    await show();
    const laid: PagesChoice[] = [];
    screen.fixture.componentInstance.chosen.subscribe((one) => laid.push(one));
    const first = screen.element.querySelector<HTMLButtonElement>('.row button')!;
    first.click();
    expect(laid.map(({ asset: { id }, pagesGo }) => [id, pagesGo])).toEqual([['b', 'after']]);
    const dataTransfer = new DataTransfer();
    first.dispatchEvent(new DragEvent('dragstart', { dataTransfer }));
    expect(dataTransfer.getData('application/x-cuaderno-asset')).toContain('"Ebb.pdf"');
  });

  it('go where one chooses, a PDF’s pages', async () => {
    await show();
    const laid: PagesChoice[] = [];
    screen.fixture.componentInstance.chosen.subscribe((one) => laid.push(one));
    await screen.choose('Pages of a PDF go', 'before');
    screen.element.querySelector<HTMLButtonElement>('.row .lay')!.click();
    expect(laid[0]!.pagesGo).toBe('before');
  });

  it('that are slides can be handed over only; others’ files are theirs to hand over', async () => {
    await show();
    const row = (name: string): HTMLElement =>
      [...screen.element.querySelectorAll<HTMLElement>('.row')].find((one) =>
        one.textContent.includes(name),
      )!;
    expect(row('Deck.pptx').querySelector<HTMLButtonElement>('.lay')!.disabled).toBeTrue();
    expect(row('Deck.pptx').querySelector('[aria-label="Hand over: Deck.pptx"]')).not.toBeNull();
    expect(row('Bowline.png').querySelector('.hand')).toBeNull();
  });

  it('say what is wrong', async () => {
    await show(problem('no-line', 'Cuaderno can’t be reached.'));
    expect(screen.text).toContain('Cuaderno can’t be reached.');
  });
});
