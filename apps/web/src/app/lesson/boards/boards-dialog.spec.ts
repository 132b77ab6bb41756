import type { LessonBoard } from '@cuaderno/core/features';
import { PaperSource } from '../../board/drawing/paper-source';
import { Screen } from '../../testing/screen';
import { BoardsDialog } from './boards-dialog';
import type { BoardChoice } from './boards-dialog';

const board = (id: string, title: string, course = 'sky') => ({ id, title, course, createdAt: 1 });
const SKY = [board('star', 'Star chart'), board('moon', 'Moon'), board('sun', 'Sun')];
const NOTHING = { takenOut: [], records: [] };

describe('the boards of a course', () => {
  let screen: Screen<BoardsDialog>;
  let chosen: BoardChoice[];
  let withdrawn: string[];
  let copied: unknown[];
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  async function show(inLesson: LessonBoard[] | null, boards = SKY): Promise<void> {
    [chosen, withdrawn, copied] = [[], [], []];
    screen = await Screen.show(
      BoardsDialog,
      { course: 'sky', current: 'star', papers: new PaperSource(), inLesson },
      {
        'GET /courses/sky': { course: {}, boards, ...NOTHING },
        'GET /courses/cello': {
          course: {},
          boards: [board('scale', 'Scales', 'cello')],
          ...NOTHING,
        },
        'GET /today': {
          courses: [
            { id: 'sky', name: 'Sky' },
            { id: 'cello', name: 'Cello' },
          ],
          records: [],
        },
        'POST /boards/scale/copy': (body: unknown) => {
          copied.push(body);
          return board('copy', 'Scales');
        },
        'POST /courses/sky/boards': board('new', 'Tuesday'),
      },
    );
    screen.fixture.componentInstance.chosen.subscribe((choice) => chosen.push(choice));
    screen.fixture.componentInstance.withdrawn.subscribe((id) => withdrawn.push(id));
    await screen.settles();
  }
  const cards = () => [...document.querySelectorAll<HTMLElement>('.p-dialog .board')];
  const titles = () => cards().map((card) => card.querySelector('.title')!.textContent.trim());
  const press = async (title: string): Promise<void> => {
    cards()[titles().indexOf(title)]!.click();
    await screen.settles();
  };
  const words = () => document.querySelector('.p-dialog')!.textContent;

  it('are opened by one touch; outside of a lesson nobody goes along', async () => {
    await show(null);
    expect(titles()).toEqual(['Star chart', 'Moon', 'Sun']);
    await press('Moon');
    expect(chosen).toEqual([{ board: 'moon', shows: false }]);
  });

  it('have those of the lesson first, and the class goes along unless that isn’t wished', async () => {
    await show([
      { id: 'sun', title: 'Sun', shown: true },
      { id: 'star', title: 'Star chart', shown: true },
    ]);
    expect(titles()).toEqual(['Sun', 'Star chart', 'Moon']);
    await press('Moon');
    expect(chosen).toEqual([{ board: 'moon', shows: true }]);
    document.querySelector<HTMLInputElement>('.p-dialog p-checkbox input')!.click();
    await screen.settles();
    await press('Sun');
    expect(chosen.at(-1)).toEqual({ board: 'sun', shows: false });
  });

  it('are taken back from the class, but for the last', async () => {
    const star = { id: 'star', title: 'Star chart', shown: true };
    await show([star]);
    expect(screen.button('Take Star chart back from the class')).toBeUndefined();
    screen.fixture.componentRef.setInput('inLesson', [
      star,
      { id: 'moon', title: 'Moon', shown: true },
    ]);
    await screen.settles();
    await screen.press('Take Moon back from the class');
    expect(withdrawn).toEqual(['moon']);
    screen.fixture.componentRef.setInput('inLesson', [
      star,
      { id: 'moon', title: 'Moon', shown: false },
    ]);
    await screen.settles();
    expect(words()).toContain('was taken back');
  });

  it('of another course come as a clean copy', async () => {
    await show(null);
    await screen.choose('Of the course', 'cello');
    expect(words()).toContain('A clean copy of the board comes into this course.');
    await press('Scales');
    expect(copied).toEqual([{ course: 'sky', title: 'Scales', lessonInk: false }]);
    expect(chosen).toEqual([{ board: 'copy', shows: false }]);
  });

  it('can be one more, empty; and are looked for by name where there are many', async () => {
    await show(
      null,
      Array.from({ length: 300 }, (_, i) => board(`b${i}`, `Board ${i}`)),
    );
    const field = document.querySelector<HTMLInputElement>('.p-dialog input[type=search]')!;
    field.value = 'board 299';
    field.dispatchEvent(new Event('input'));
    await screen.settles();
    expect(titles()).toEqual(['Board 299']);
    await screen.press('Empty board');
    expect(chosen).toEqual([{ board: 'new', shows: false }]);
  });
});
