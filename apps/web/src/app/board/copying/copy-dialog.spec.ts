import { Screen, write } from '../../testing/screen';
import { CopyDialog } from './copy-dialog';

const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const press = (name: string): void =>
  [...dialog().querySelectorAll('button')]
    .find((button) => button.textContent.trim() === name)!
    .click();

describe('a copy of a board', () => {
  const source = {
    ...{ of: { board: 'b1' }, title: 'Orion', course: 'c1' },
    ...{ header: 'Copy this board', lessonInk: false },
  };
  const show = (answers: object = {}): Promise<Screen<CopyDialog>> =>
    Screen.show(
      CopyDialog,
      { source },
      {
        'GET /today': {
          courses: [
            { id: 'c1', name: 'Sky-watching' },
            { id: 'c2', name: 'Reading the tides' },
          ],
        },
        ...answers,
      },
    );
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('has the name and course that are proposed, or others', async () => {
    const copied = { id: 'b2', title: 'The Pleiades' };
    const screen = await show({ 'POST /boards/b1/copy': copied });
    const made: unknown[] = [];
    screen.fixture.componentInstance.made.subscribe((board) => made.push(board));
    const title = dialog().querySelector<HTMLInputElement>('input[name=title]')!;
    expect(title.value).toBe('Orion');
    write(title, 'The Pleiades');
    dialog().querySelectorAll<HTMLInputElement>('input[type=radio]')[1]!.click();
    press('Make the copy');
    await screen.settles();
    expect(screen.api.asked).toContain({
      call: 'POST /boards/b1/copy',
      body: { title: 'The Pleiades', course: 'c1', lessonInk: true },
    });
    expect(made).toEqual([copied]);
  });

  it('without a name isn’t asked for: the field says so', async () => {
    const screen = await show();
    const title = dialog().querySelector<HTMLInputElement>('input[name=title]')!;
    write(title, '  ');
    press('Make the copy');
    await screen.settles();
    expect(dialog().textContent).toContain('Write a name for the copy.');
    expect(title.getAttribute('aria-invalid')).toBe('true');
    expect(screen.api.asked.map(({ call }) => call)).toEqual(['GET /today']);
  });
});
