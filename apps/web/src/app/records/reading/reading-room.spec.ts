import { problem, Screen } from '../../testing/screen';
import { ReadingRoom } from './reading-room';
import type { ReadFolder } from './shapes';

const FOLDERS: ReadFolder[] = [
  {
    id: 'f',
    name: 'Star charts',
    sheets: [
      { id: 'a', name: 'Orion.pdf', kind: 'pdf', pages: 2 },
      { id: 'b', name: 'Moon.png', kind: 'picture', pages: 1 },
    ],
  },
];

describe('what students may look at', () => {
  let screen: Screen<ReadingRoom>;
  const pages = Object.fromEntries(
    ['a/pages/1', 'a/pages/2', 'b/pages/1'].map((path) => [
      `GET /lesson/materials/${path}`,
      new Uint8Array([1]),
    ]),
  );
  const show = async (answers: Record<string, unknown> = pages): Promise<void> => {
    screen = await Screen.show(ReadingRoom, { folders: FOLDERS }, answers);
  };
  const shown = (): string | null =>
    screen.element.querySelector('img')?.getAttribute('alt') ?? null;

  it('is seen page by page', async () => {
    await show();
    expect(shown()).toBe('Page 1 of Orion.pdf');
    await screen.press('Next');
    expect(shown()).toBe('Page 2 of Orion.pdf');
    expect(screen.text).toContain('Page 2 of 2');
    expect(screen.button('Next')!.disabled).toBeTrue();
    await screen.press('Moon.png');
    expect(shown()).toBe('Page 1 of Moon.png');
    expect(screen.text).not.toContain('Page 1 of 1');
  });

  it('is made larger and smaller', async () => {
    await show();
    const wide = (): string =>
      screen.element.querySelector<HTMLElement>('cua-page-view')!.style.width;
    expect(screen.button('Smaller')!.disabled).toBeTrue();
    await screen.press('Larger');
    await screen.press('Larger');
    expect(wide()).toBe('200%');
    await screen.press('Smaller');
    expect(wide()).toBe('150%');
  });

  it('is gone as soon as it is taken back', async () => {
    await show();
    const [folder] = FOLDERS;
    screen.fixture.componentRef.setInput('folders', [
      { ...folder!, sheets: folder!.sheets.slice(1) },
    ]);
    await screen.settles();
    expect(shown()).toBe('Page 1 of Moon.png');
    screen.fixture.componentRef.setInput('folders', []);
    await screen.settles();
    expect(shown()).toBeNull();
  });

  it('asks for the list anew where a page isn’t there any more', async () => {
    let lost = 0;
    screen = await Screen.show(
      ReadingRoom,
      { folders: [] },
      { 'GET /lesson/materials/a/pages/1': problem('not-found', 'There is nothing here.') },
    );
    screen.fixture.componentInstance.lost.subscribe(() => lost++);
    screen.fixture.componentRef.setInput('folders', FOLDERS);
    await screen.settles();
    expect(lost).toBe(1);
  });

  it('says what is wrong, and tries again', async () => {
    await show({ 'GET /lesson/materials/a/pages/1': problem('no-line', 'Out of reach.') });
    expect(screen.text).toContain('Out of reach.');
    await screen.press('Try again');
    expect(screen.api.asked).toHaveSize(2);
  });
});
