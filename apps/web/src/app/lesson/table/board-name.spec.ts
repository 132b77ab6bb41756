import { Screen, write } from '../../testing/screen';
import { BoardName } from './board-name';

describe('the name of a board', () => {
  let screen: Screen<BoardName>;
  let renamed: string[];

  const field = (): HTMLInputElement | null => screen.element.querySelector('input');
  const press = (key: string): void => {
    field()!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
  };

  async function show(mayRename = true): Promise<void> {
    screen = await Screen.show(BoardName, { name: 'Orion', mayRename }, {});
    document.body.append(screen.element);
    renamed = [];
    screen.fixture.componentInstance.renamed.subscribe((name) => renamed.push(name));
  }
  afterEach(() => screen.element.remove());

  it('is changed once, with Enter or by leaving the field', async () => {
    await show();
    await screen.press('Orion');
    expect(document.activeElement).toBe(field());
    write(field()!, '  The Pleiades ');
    press('Enter');
    await screen.settles();
    expect(renamed).toEqual(['The Pleiades']);
    // The button has the focus again: who uses keys goes on from there.
    expect(document.activeElement).toBe(screen.element.querySelector('button'));
    await screen.press('Orion');
    write(field()!, 'Sirius');
    field()!.blur();
    await screen.settles();
    expect(renamed).toEqual(['The Pleiades', 'Sirius']);
  });

  it('stays where nothing else is written, or nothing at all, or that is given up', async () => {
    await show();
    for (const [name, key] of [
      ['Orion ', 'Enter'],
      ['  ', 'Enter'],
      ['Sirius', 'Escape'],
    ] as const) {
      await screen.press('Orion');
      write(field()!, name);
      press(key);
      await screen.settles();
      expect(field()).toBeNull();
    }
    expect(renamed).toEqual([]);
  });

  it('can’t be changed while the board isn’t there', async () => {
    await show(false);
    expect(screen.element.querySelector('button')!.disabled).toBeTrue();
  });
});
