import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { CLOSE } from '@cuaderno/core/features';
import { PretendLesson } from '../../live/pretend-lesson';
import { problem, Screen } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { WhoWaits } from '../waiting/who-waits';
import { BoardScreen } from './board';
import { BoardScreenHarness } from './board.harness';

describe('the screen of a board', () => {
  let lesson: PretendLesson;
  let screen: Screen<BoardScreen>;
  let harness: BoardScreenHarness;

  async function show(answers: PretendAnswers = {}): Promise<void> {
    lesson = new PretendLesson();
    const board = lesson.board;
    const course = {
      ...{ id: 'tides', name: 'Reading the tides', linkToken: 't', joinCode: 'AAAA' },
      ...{ lesson: null, rules: {} },
    };
    screen = await Screen.show(
      BoardScreen,
      { board },
      {
        [`GET /boards/${board}`]: { board: { id: board, title: 'Tides' }, course },
        [`GET /boards/${board}/writers`]: { writers: [] },
        [`POST /boards/${board}/lesson`]: { id: lesson.id },
        'GET /late-lines': { waiting: [] },
        [`GET /lessons/${lesson.id}/notes`]: { notes: [] },
        ...answers,
      },
      [lesson.provider, { provide: WhoWaits, useValue: { list: () => [], elsewhere: () => [] } }],
    );
    screen.element.style.cssText = 'display:grid;width:1280px;height:800px';
    harness = await TestbedHarnessEnvironment.harnessForFixture(screen.fixture, BoardScreenHarness);
  }
  const asked = (): string[] => screen.api.asked.map(({ call }) => call);

  afterEach(() => {
    screen.fixture.destroy();
    localStorage.clear();
  });

  it('has its board, and opens a lesson on it', async () => {
    await show();
    lesson.welcome('tutor', { isOpen: false });
    expect(await harness.title()).toBe('Tides');
    expect(await harness.workArea()).not.toBeNull();
    await harness.press('Open the lesson');
    expect(asked()).toContain(`POST /boards/${lesson.board}/lesson`);
  });

  it('says why a lesson couldn’t be opened, and keeps the board', async () => {
    await show();
    lesson.welcome('tutor', { isOpen: false });
    const full = problem('disk-full', 'The disk is full.');
    (screen.api as unknown as { answers: PretendAnswers }).answers[
      `POST /boards/${lesson.board}/lesson`
    ] = full;
    await harness.press('Open the lesson');
    await screen.settles();
    expect(await harness.problem()).toContain('The disk is full.');
    expect(await harness.workArea()).not.toBeNull();
  });

  it('asks how a lesson is to be left before it is closed', async () => {
    await show();
    lesson.welcome('tutor');
    expect(await harness.offers()).not.toContain('Open the lesson');
    await harness.press('Close the lesson');
    expect(await harness.asksHowToLeave()).toBeTrue();
    expect(asked().some((call) => call.startsWith('POST /lessons'))).toBeFalse();
  });

  it('takes all pens back by two keys, in a lesson alone', async () => {
    await show();
    lesson.welcome('tutor', { isOpen: false });
    await harness.takePensByKey();
    expect(lesson.line.of('trust')).toEqual([]);
    lesson.welcome('tutor');
    await harness.takePensByKey();
    expect(lesson.line.of('trust')).toEqual([{ kind: 'trust', who: 'all', trust: 'view' }]);
  });

  it('says so where it can’t be opened', async () => {
    await show();
    lesson.line.open();
    lesson.line.end(CLOSE.notIn);
    await screen.settles();
    expect(screen.text).toContain('This board can’t be opened.');
  });
});
