import type { BoardInfo } from '../../api/shapes';
import { problem, Screen } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { BoardList } from './board-list';

const board = (id: string): BoardInfo => ({ id, course: 'c1', title: id, createdAt: 0 });
const names = ['Ebb', 'Flood', 'Neap'];

describe('the boards of a course', () => {
  let screen: Screen<BoardList>;

  async function show(answers: PretendAnswers = {}, takenOut: BoardInfo[] = []): Promise<void> {
    const covers = [...names, 'Surge'].map((id) => [
      `GET /boards/${id}/cover`,
      problem('not-found', 'None.'),
    ]);
    screen = await Screen.show(
      BoardList,
      { boards: names.map(board), takenOut },
      { ...(Object.fromEntries(covers) as PretendAnswers), ...answers },
    );
  }
  const shown = (): string[] =>
    [...screen.element.querySelectorAll('.cards .name')].map((e) => e.textContent);
  const asked = (call: string): unknown => screen.api.asked.find((a) => a.call === call)?.body;
  const wish = async (name: string, what: string): Promise<void> => {
    await screen.press(`What to do with ${name}`);
    [...document.querySelectorAll<HTMLElement>('.p-menu-item-link')]
      .find((item) => item.textContent.trim() === what)!
      .click();
    await screen.settles();
  };
  const key = async (name: string, code: string): Promise<void> => {
    const card = [...screen.element.querySelectorAll('a.card')].find((a) =>
      a.textContent.includes(name),
    )!;
    card.dispatchEvent(new KeyboardEvent('keydown', { key: code, altKey: true, bubbles: true }));
    await screen.settles();
  };

  it('go up and down by keyboard, and are seen there before the server has said so', async () => {
    let answer: (boards: BoardInfo[]) => void = () => undefined;
    await show({
      'POST /boards/Neap/place': () => new Promise((done) => (answer = done)),
    });
    await key('Neap', 'ArrowUp');
    expect(shown()).toEqual(['Ebb', 'Neap', 'Flood']);
    expect(asked('POST /boards/Neap/place')).toEqual({ before: 'Flood' });
    answer(['Ebb', 'Neap', 'Flood'].map(board));
    await screen.settles();
    expect(shown()).toEqual(['Ebb', 'Neap', 'Flood']);
  });

  it('stay where they were put last, though what came of an earlier move is told after that', async () => {
    const answers: ((boards: BoardInfo[]) => void)[] = [];
    const later = (): Promise<BoardInfo[]> => new Promise((done) => answers.push(done));
    await show({ 'POST /boards/Neap/place': later });
    await key('Neap', 'ArrowUp');
    await key('Neap', 'ArrowUp');
    expect(shown()).toEqual(['Neap', 'Ebb', 'Flood']);
    answers[0]!(['Ebb', 'Neap', 'Flood'].map(board));
    await screen.settles();
    expect(shown()).toEqual(['Neap', 'Ebb', 'Flood']);
  });

  it('go back to where they were when that can’t be done', async () => {
    await show({ 'POST /boards/Ebb/place': problem('no-line', 'Cuaderno can’t be reached.') });
    await key('Ebb', 'ArrowDown');
    expect(shown()).toEqual(names);
    expect(screen.text).toContain('Cuaderno can’t be reached.');
  });

  it('have nowhere to go beyond the ends', async () => {
    await show();
    await key('Ebb', 'ArrowUp');
    await key('Neap', 'ArrowDown');
    expect(screen.api.asked.some(({ call }) => call.includes('place'))).toBeFalse();
  });

  it('get a name where it stands; Escape leaves it', async () => {
    await show({ 'POST /boards/Ebb/name': { ...board('Ebb'), title: 'Low water' } });
    await wish('Ebb', 'Rename');
    const field = (): HTMLInputElement => screen.element.querySelector('input[name=title]')!;
    field().value = 'Nothing';
    field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    await screen.settles();
    expect(shown()).toEqual(names);
    await wish('Ebb', 'Rename');
    field().value = 'Low water';
    field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await screen.settles();
    expect(asked('POST /boards/Ebb/name')).toEqual({ title: 'Low water' });
    expect(shown()[0]).toBe('Low water');
  });

  it('are taken out without a question, and come back with one touch', async () => {
    await show({
      'POST /boards/Flood/remove': board('Flood'),
      'POST /boards/Flood/restore': board('Flood'),
      'GET /courses/c1': { boards: names.map(board) },
    });
    await wish('Flood', 'Remove');
    expect(shown()).toEqual(['Ebb', 'Neap']);
    expect(screen.text).toContain('was removed');
    await screen.press('Restore');
    expect(shown()).toEqual(names);
    expect(screen.text).not.toContain('was removed');
  });

  it('that were taken out before can be brought back as well', async () => {
    await show(
      {
        'POST /boards/Surge/restore': board('Surge'),
        'GET /courses/c1': { boards: [...names, 'Surge'].map(board) },
      },
      [board('Surge')],
    );
    expect(screen.text).toContain('Removed: 1');
    await screen.press('Restore Surge');
    expect(shown()).toEqual([...names, 'Surge']);
  });

  it('are copied clean, or with everyone’s ink, to this course or another', async () => {
    await show({
      'GET /today': { courses: [{ id: 'c1', name: 'Tides' }] },
      'POST /boards/Ebb/copy': board('Surge'),
    });
    await wish('Ebb', 'Copy it…');
    const button = [...document.querySelectorAll('button')].find(
      (b) => b.textContent.trim() === 'Make the copy',
    )!;
    button.click();
    await screen.settles();
    expect(asked('POST /boards/Ebb/copy')).toEqual({
      title: 'Ebb, copy',
      course: 'c1',
      lessonInk: false,
    });
    expect(shown()[0]).toBe('Surge');
  });
});
