import type { Course } from '../../api/shapes';
import { problem, Screen } from '../../testing/screen';
import { WayIn } from './way-in';

const COURSE: Course = {
  id: 'sky',
  name: 'Sky-watching',
  linkToken: 'old-link',
  joinCode: 'ACGHJKM',
  nextUntil: null,
  nextAt: null,
  door: 'ask',
  rules: {},
  retiredAt: null,
  lesson: null,
};

describe('how students come into a course', () => {
  const show = (answers = {}, open = false) =>
    Screen.show(WayIn, { course: COURSE, open }, { 'GET /courses/sky/guests': [], ...answers });
  const chosen = (screen: Screen<WayIn>): boolean[] =>
    [...screen.element.querySelectorAll<HTMLInputElement>('input[type=radio]')].map(
      ({ checked }) => checked,
    );

  it('is by the door that the tutor wishes; what couldn’t be kept is as it was', async () => {
    let answer: unknown = null;
    const screen = await show({ 'POST /courses/sky/door': () => answer });
    expect(chosen(screen)).toEqual([true, false, false]);
    screen.element.querySelectorAll<HTMLInputElement>('input[type=radio]')[1]!.click();
    await screen.settles();
    expect(screen.api.asked.at(-1)!.body).toEqual({ door: 'known' });
    expect(screen.fixture.componentInstance.course().door).toBe('known');
    answer = problem('offline', 'There is no line.');
    screen.element.querySelectorAll<HTMLInputElement>('input[type=radio]')[2]!.click();
    await screen.settles();
    expect(screen.fixture.componentInstance.course().door).toBe('known');
    expect(screen.text).toContain('There is no line.');
  });

  it('gets a new link only after saying what that does', async () => {
    const now = { linkToken: 'new-link', joinCode: 'Y9W7R6Q' };
    const screen = await show({ 'POST /courses/sky/link': now });
    await screen.press('New link …');
    expect(screen.text).toContain('the old ones lead nowhere');
    await screen.press('Keep the old');
    expect(screen.api.asked.some(({ call }) => call.startsWith('POST'))).toBeFalse();
    await screen.press('New link …');
    await screen.press('Make a new link');
    expect(screen.text).toContain('Y9W 7R6Q');
  });

  it('ends when the course is retired, and says so first', async () => {
    const screen = await show({ 'POST /courses/sky/retire': null });
    await screen.press('Retire the course …');
    expect(screen.text).toContain('Boards and records stay');
    await screen.press('Retire the course');
    expect(screen.text).toContain('This course is retired');
    expect(screen.button('Copy link')).toBeUndefined();
  });

  it('can’t be retired from under a lesson', async () => {
    const screen = await show({}, true);
    expect(screen.button('Retire the course …')!.disabled).toBeTrue();
  });

  it('has links for one guest each, which can be ended', async () => {
    const link = { id: 'g', token: 't', guest: 'Aunt Liv', role: 'helper', madeAt: 0, used: false };
    const copied = spyOn(navigator.clipboard, 'writeText').and.resolveTo();
    const screen = await show({
      'POST /courses/sky/guests': link,
      'POST /courses/sky/guests/g/end': null,
    });
    const field = screen.element.querySelector<HTMLInputElement>('input[aria-label=Guest]')!;
    field.value = ' Aunt Liv ';
    await screen.choose('Comes as', 'helper');
    expect(screen.text).toContain('does all that you do in a lesson');
    await screen.press('Make and copy');
    expect(screen.api.asked.at(-1)!.body).toEqual({ guest: 'Aunt Liv', role: 'helper' });
    expect(copied).toHaveBeenCalledOnceWith(`${location.origin}/join/t`);
    expect(screen.text).toContain('helps');
    expect(screen.text).toContain('not used yet');
    await screen.press('Cancel link');
    expect(screen.text).not.toContain('Aunt Liv');
  });
});
