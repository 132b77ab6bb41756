import type { AssetInfo, MaterialsInfo } from '../store/shapes';
import { problem, Screen } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { MaterialsScreen } from './materials';

const asset = (id: string, name: string, more: Partial<AssetInfo> = {}): AssetInfo => ({
  id,
  folder: null,
  name,
  kind: 'pdf',
  file: 'a'.repeat(64),
  bytes: 340_000,
  pages: 3,
  width: 0,
  height: 0,
  length: 0,
  createdAt: 0,
  pictured: false,
  ...more,
});

const EBB = asset('ebb', 'Ebb 10.pdf');
const FLOOD = asset('flood-flood-', 'Flood.wav', {
  kind: 'sound',
  pages: null,
  length: 80,
  bytes: 9,
});
const ORION = asset('orion', 'Orion.pdf', { folder: 'sky' });

describe('materials', () => {
  let screen: Screen<MaterialsScreen>;

  async function show(answers: PretendAnswers = {}, at = '', info: Partial<MaterialsInfo> = {}) {
    const all: MaterialsInfo = {
      folders: [
        { id: 'sky', parent: null, name: 'Sky' },
        { id: 'winter', parent: 'sky', name: 'Winter' },
      ],
      assets: [FLOOD, asset('ebb9', 'Ebb 9.pdf', { bytes: 5_000_000 }), EBB, ORION],
      shares: [],
      shared: [],
      binned: 0,
      ...info,
    };
    screen = await Screen.show(
      MaterialsScreen,
      { at },
      { 'GET /materials': all, 'GET /today': { courses: [] }, ...answers },
    );
    // Lines are made for the room that there is.
    screen.element.style.cssText = 'display: flex; height: 800px; width: 1200px';
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
  const asked = (call: string): unknown => screen.api.asked.find((a) => a.call === call)?.body;
  const choose = async (name: string): Promise<void> => {
    screen.element.querySelector<HTMLInputElement>(`input[aria-label="Select ${name}"]`)!.click();
    await screen.settles();
  };
  const find = async (words: string): Promise<void> => {
    const field = screen.element.querySelector<HTMLInputElement>('input[type=search]')!;
    field.value = words;
    field.dispatchEvent(new Event('input'));
    await drawn();
  };

  it('lie in their folder, folders first, by name as people count', async () => {
    await show();
    expect(names()).toEqual(['Sky', 'Ebb 9.pdf', 'Ebb 10.pdf', 'Flood.wav']);
    expect(screen.text).toContain('PDF, 3 pages · 340 kB');
    expect(screen.text).toContain('Sound, 1:20 · 9 bytes');
    expect(screen.text).toContain('Folder, 2 things');
  });

  it('are put in order by size', async () => {
    await show();
    await screen.choose('In which order', 'largest');
    await drawn();
    expect(names()).toEqual(['Sky', 'Ebb 9.pdf', 'Ebb 10.pdf', 'Flood.wav']);
    await screen.choose('In which order', 'kind');
    await drawn();
    expect(names().at(-1)).toBe('Flood.wav');
  });

  it('are found in all folders, with where they lie', async () => {
    await show();
    await find('ORI');
    expect(names()).toEqual(['Orion.pdf']);
    expect(screen.element.querySelector('.row')!.textContent).toContain('in Sky');
    await find('nothing of the kind');
    expect(screen.text).toContain('Try fewer letters');
  });

  it('go to the bin without a question, and it is said on which boards they stay', async () => {
    await show({
      'POST /materials/uses': [{ board: 'b', title: 'Tides', course: 'c', pages: [1] }],
      'POST /materials/remove': undefined,
      'POST /materials/restore': undefined,
    });
    await choose('Ebb 10.pdf');
    await screen.press('Into the bin');
    expect(asked('POST /materials/remove')).toEqual({ folders: [], assets: ['ebb'] });
    expect(screen.text).toContain('“Ebb 10.pdf” lies in the bin. What is on “Tides” stays there.');
    await screen.press('Restore');
    expect(asked('POST /materials/restore')).toEqual({ folders: [], assets: ['ebb'] });
  });

  it('say what is wrong, and keep what was chosen', async () => {
    await show({
      'POST /materials/uses': [],
      'POST /materials/remove': problem('no-line', 'Cuaderno can’t be reached.'),
    });
    await choose('Flood.wav');
    await screen.press('Into the bin');
    expect(screen.text).toContain('Cuaderno can’t be reached.');
    expect(screen.text).toContain('1 chosen');
  });

  it('lie in folders, which are a tree: one folds away with all that is in it', async () => {
    await show();
    const lines = (): (string | null)[] =>
      [...screen.element.querySelectorAll('[role=treeitem]')].map((one) =>
        one.getAttribute('aria-label'),
      );
    expect(lines()).toEqual(jasmine.arrayContaining(['My materials', 'Sky']));
    screen.element.querySelector<HTMLElement>('.p-tree-node-toggle-button')!.click();
    await screen.settles();
    expect(lines()).toContain('My materials');
    expect(lines()).not.toContain('Sky');
  });

  it('are carried into a folder', async () => {
    await show({ 'POST /materials/move': undefined });
    const data = new DataTransfer();
    const row = [...screen.element.querySelectorAll('.row')].find((one) =>
      one.textContent.includes('Flood'),
    )!;
    row.dispatchEvent(new DragEvent('dragstart', { dataTransfer: data, bubbles: true }));
    const sky = [...screen.element.querySelectorAll('.folder')].find((one) =>
      one.textContent.includes('Sky'),
    )!;
    sky.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true }));
    await screen.settles();
    expect(asked('POST /materials/move')).toEqual({
      folders: [],
      assets: ['flood-flood-'],
      to: 'sky',
    });
  });

  it('of other tutors can be copied, and nothing else', async () => {
    await show({}, 'theirs', {
      shared: [
        {
          owner: { id: 'sigrid', name: 'Sigrid' },
          folders: [{ id: 'theirs', parent: null, name: 'Knots' }],
          assets: [asset('bowline', 'Bowline.pdf', { folder: 'theirs' })],
        },
      ],
    });
    expect(screen.text).toContain('From Sigrid');
    await choose('Bowline.pdf');
    expect(screen.button('Copy to my materials…')).toBeDefined();
    for (const name of ['Into the bin', 'Put into…', 'New folder', 'Share'])
      expect(screen.button(name)).withContext(name).toBeUndefined();
  });

  it('in the bin can be brought back; emptying it asks first', async () => {
    await show(
      {
        'GET /materials/bin': {
          folders: [{ id: 'old', parent: null, name: 'Old' }],
          assets: [EBB],
        },
        'POST /materials/restore': undefined,
        'POST /materials/bin/empty': undefined,
      },
      'bin',
      { assets: [], folders: [], binned: 2 },
    );
    expect(names()).toEqual(['Old', 'Ebb 10.pdf']);
    await choose('Old');
    await screen.press('Restore');
    expect(asked('POST /materials/restore')).toEqual({ folders: ['old'], assets: [] });
    await screen.press('Empty the bin');
    const emptied = (): boolean =>
      screen.api.asked.some(({ call }) => call === 'POST /materials/bin/empty');
    expect(emptied()).toBeFalse();
    const sure = [...document.querySelectorAll('.p-dialog button')].find(
      (button) => button.textContent.trim() === 'Empty the bin',
    ) as HTMLButtonElement;
    sure.click();
    await screen.settles();
    expect(emptied()).toBeTrue();
  });

  it('tell of a file on which pages it is used', async () => {
    await show({
      'POST /materials/uses': [
        { board: 'b', title: 'Tides', course: 'Reading the tides', pages: [1, 2, 3, 7] },
      ],
    });
    const row = [...screen.element.querySelectorAll<HTMLButtonElement>('.what')].find((one) =>
      one.textContent.includes('Ebb 10'),
    )!;
    row.click();
    await screen.settles();
    expect(screen.text).toContain('Reading the tides · pages 1–3 and 7');
  });

  it('say what to do first where there is nothing', async () => {
    await show({}, '', { folders: [], assets: [] });
    expect(screen.text).toContain('Nothing here yet. Upload PDFs');
  });
});
