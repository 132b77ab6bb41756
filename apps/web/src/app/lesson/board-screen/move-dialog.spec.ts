import { Screen } from '../../testing/screen';
import { MoveDialog } from './move-dialog';

const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const button = (name: string): HTMLButtonElement =>
  [...dialog().querySelectorAll('button')].find((one) => one.textContent.trim() === name)!;

describe('pages that go to another board', () => {
  const board = (id: string, title: string) => ({ id, title });
  const show = (answers: object = {}): Promise<Screen<MoveDialog>> =>
    Screen.show(
      MoveDialog,
      { pages: ['p1', 'p2'], board: 'b1', course: 'c1' },
      {
        'GET /today': {
          courses: [
            { id: 'c1', name: 'Sky-watching' },
            { id: 'c2', name: 'Reading the tides' },
          ],
        },
        'GET /courses/c1': { boards: [board('b1', 'Orion'), board('b2', 'The moon')] },
        'GET /courses/c2': { boards: [board('b3', 'Ebb and flood')] },
        ...answers,
      },
    );
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('go to the first other one of the course, unless another is chosen', async () => {
    const screen = await show({ 'POST /boards/b1/pages/move': null });
    const moved: string[] = [];
    screen.fixture.componentInstance.moved.subscribe(({ title }) => moved.push(title));
    expect(dialog().textContent).toContain('The moon');
    button('Move').click();
    await screen.settles();
    expect(screen.api.asked).toContain({
      call: 'POST /boards/b1/pages/move',
      body: { pages: ['p1', 'p2'], to: 'b2' },
    });
    expect(moved).toEqual(['The moon']);
  });

  it('can’t go anywhere where a course has no other board: that is said', async () => {
    await show({ 'GET /courses/c1': { boards: [board('b1', 'Orion')] } });
    expect(dialog().textContent).toContain('This course has no other board.');
    expect(button('Move').disabled).toBeTrue();
  });
});
