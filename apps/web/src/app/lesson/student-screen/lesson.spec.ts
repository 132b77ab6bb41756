import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { CLOSE } from '@cuaderno/core/features';
import { newId } from '@cuaderno/core/id';
import { PretendLesson } from '../../live/pretend-lesson';
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
        'GET /lesson': { title: 'Tides', course: 'Reading the tides', name: 'Ida', link: 'abc' },
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
