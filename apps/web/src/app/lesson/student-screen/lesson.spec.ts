import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { CLOSE } from '@cuaderno/core/features';
import { newId } from '@cuaderno/core/id';
import { PretendLesson } from '../../live/pretend-lesson';
import { pretendPerson } from '../../live/pretend-person';
import { problem, Screen } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { LessonScreen } from './lesson';
import { LessonScreenHarness } from './lesson.harness';

describe('a student’s screen of a lesson', () => {
  let lesson: PretendLesson;
  let screen: Screen<LessonScreen>;
  let harness: LessonScreenHarness;

  async function show(answers: PretendAnswers = {}): Promise<void> {
    lesson = new PretendLesson();
    screen = await Screen.show(
      LessonScreen,
      {},
      {
        'GET /lesson': {
          ...{ id: 'l', board: 'b', title: 'Tides', courseId: 'tides' },
          ...{ course: 'Reading the tides', name: 'Ida', role: 'student' },
        },
        'GET /lesson/materials': [],
        'GET /handed': { files: [] },
        'GET /late-lines/own': { lessons: [] },
        ...answers,
      },
      [lesson.provider],
    );
    screen.element.style.cssText = 'display:grid;width:820px;height:1180px';
    harness = await TestbedHarnessEnvironment.harnessForFixture(
      screen.fixture,
      LessonScreenHarness,
    );
  }

  afterEach(() => {
    screen.fixture.destroy();
    localStorage.clear();
  });

  it('goes in, and says what may be done with a pen as that changes', async () => {
    await show();
    expect(screen.text).toContain('Going in…');
    lesson.welcome('student');
    expect(await harness.workArea()).not.toBeNull();
    expect(await harness.pen()).toBe('Watching');
    lesson.trust('student', 'write');
    expect(await harness.pen()).toBe('You have a pen');
    lesson.trust('student', 'hands');
    expect(await harness.pen()).toBe('Hands on');
  });

  it('says to one who watches that they watch, and has nothing to write with', async () => {
    await show();
    lesson.welcome('watcher');
    expect(await harness.pen()).toBe('You watch');
    expect(screen.button('Raise hand')).toBeUndefined();
    await harness.press('Class');
    expect(screen.text).toContain('you read what is written to all');
    expect(screen.element.querySelector('cua-chat-panel textarea')).toBeNull();
  });

  it('gives one who helps what the tutor has, but what closes, shares and removes', async () => {
    await show();
    lesson.welcome('helper');
    // Its code comes by itself.
    while (!screen.element.querySelector('cua-helper-room cua-people-panel'))
      await screen.settles();
    expect(screen.text).toContain('helps');
    expect(screen.button('Boards')).toBeDefined();
    expect(screen.button('Take all pens back')).toBeDefined();
    for (const name of ['Close the lesson', 'Private notes', 'Materials', 'Raise hand'])
      expect(screen.button(name)).withContext(name).toBeUndefined();
    const ida = pretendPerson({ id: newId(), name: 'Ida', role: 'student', trust: 'write' });
    lesson.line.say({ kind: 'people', people: [ida] });
    await screen.settles();
    await screen.press('Take all pens back');
    expect(lesson.line.of('trust')).toEqual([{ kind: 'trust', who: 'all', trust: 'view' }]);
  });

  it('has who is there and what is said one touch away', async () => {
    await show();
    lesson.welcome('student');
    expect(await harness.isTalking()).toBeFalse();
    const { other, line } = lesson;
    const said = {
      id: newId(),
      by: other,
      to: 'all',
      text: 'Low water is at ten.',
      at: 1,
    } as const;
    line.say({ kind: 'chat', lines: [said] });
    await harness.press('Class, 1 unread');
    expect(await harness.isTalking()).toBeTrue();
    // What is in sight is read.
    await harness.press('Class');
    expect(await harness.isTalking()).toBeFalse();
  });

  it('shows what the tutor lets the class look at, until that is taken back', async () => {
    let folders = [{ id: 'tables', name: 'Tide tables', sheets: [] }];
    await show({ 'GET /lesson/materials': () => folders });
    lesson.welcome('student');
    await screen.settles();
    await harness.press('Handouts');
    expect(screen.button('Board')).toBeDefined();
    folders = [];
    lesson.line.say({ kind: 'materials' });
    await screen.settles();
    expect(screen.button('Board')).toBeUndefined();
    expect(screen.button('Handouts')).toBeUndefined();
  });

  it('says that the lesson is over, and that all is kept', async () => {
    await show();
    lesson.welcome('student');
    lesson.line.end(CLOSE.over);
    await screen.settles();
    expect(await harness.says()).toBe('The lesson is over');
    expect(screen.text).toContain('All that was written is kept');
  });

  it('says so at once where it was over before', async () => {
    await show({ 'GET /lesson': problem('lesson-over', 'The lesson is over.') });
    expect(await harness.says()).toBe('The lesson is over');
  });

  it('goes to the door where the student is to wait, or was sent out', async () => {
    await show({ 'GET /lesson': problem('at-the-door', 'You are at the door.') });
    expect(screen.address).toBe('/door');
  });

  it('says what keeps it away, and goes in when that is over', async () => {
    await show({ 'GET /lesson': problem('unreachable', 'Cuaderno can’t be reached.') });
    expect(await harness.says()).toBe('Cuaderno can’t be reached.');
  });

  it('offers the way in again where a place has expired', async () => {
    await show();
    lesson.line.open();
    lesson.line.end(CLOSE.notIn);
    await screen.settles();
    expect(await harness.says()).toBe('Your place in this lesson has expired');
  });
});
