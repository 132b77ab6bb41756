import { TestBed } from '@angular/core/testing';
import { ApiError, NO_LINE } from '../../api/problem';
import { problem, Screen } from '../../testing/screen';
import { JoinScreen } from './join';
import { wayBack } from '../way-back/way-back';

const DOOR = { course: 'Tides', tutor: 'Maren', open: true, nextAt: null, name: null };

describe('a student’s way in', () => {
  afterEach(() => localStorage.clear());
  it('by link asks for a first name and nothing else, and leads into the lesson', async () => {
    const screen = await Screen.show(
      JoinScreen,
      { link: 'abc' },
      { 'POST /join/find': DOOR, 'POST /join': { state: 'in' } },
    );
    expect(screen.text).toContain('Tides');
    expect(screen.text).toContain('with Maren');
    expect(screen.element.querySelectorAll('input').length).toBe(1);
    await screen.send('name', 'Ída');
    expect(screen.api.asked.at(-1)!.body).toEqual({ by: { link: 'abc' }, name: 'Ída' });
    expect(screen.address).toBe('/lesson');
  });

  it('leads to the door where somebody has to open it', async () => {
    const screen = await Screen.show(
      JoinScreen,
      { link: 'abc' },
      { 'POST /join/find': DOOR, 'POST /join': { state: 'waiting' } },
    );
    await screen.send('name', 'Ída');
    expect(screen.address).toBe('/door');
  });

  it('says when the next lesson is, by the clock of the person who looks', async () => {
    const at = new Date(2040, 10, 27, 16, 30).getTime();
    const shut = { ...DOOR, open: false, nextAt: at };
    const screen = await Screen.show(JoinScreen, { link: 'abc' }, { 'POST /join/find': shut });
    expect(screen.text).toContain('The next lesson is Tuesday 27 November at 16:30');
    expect(screen.text).toContain('by your clock');
  });

  it('tells the tutor who waits, and lets them go on typing as the lesson opens', async () => {
    let open = false;
    const screen = await Screen.show(
      JoinScreen,
      { link: 'abc' },
      { 'POST /join/find': () => ({ ...DOOR, open }) },
    );
    const field = screen.element.querySelector('input')!;
    field.value = 'Íd';
    open = true;
    await screen.fixture.componentInstance['look']();
    await screen.settles();
    expect(screen.element.querySelector('input')).toBe(field);
    expect(field.value).toBe('Íd');
    expect(screen.button('Go in')).toBeDefined();
    open = false;
    await screen.fixture.componentInstance['look']();
    await screen.settles();
    await screen.send('name', 'Ída');
    expect(screen.api.asked.at(-1)!.body).toEqual({ link: 'abc', name: 'Ída' });
    expect(screen.text).toContain('is told that you are here, Ída.');
  });

  it('knows who was here before', async () => {
    const known = { ...DOOR, name: 'Noor' };
    const screen = await Screen.show(JoinScreen, { link: 'abc' }, { 'POST /join/find': known });
    expect(screen.element.querySelector('input')!.value).toBe('Noor');
  });

  it('by code says kindly that there is no such code, and can be tried again', async () => {
    let found: unknown = problem('code-unknown', 'No course has this code.', 'Ask your tutor.');
    const screen = await Screen.show(JoinScreen, {}, { 'POST /join/find': () => found });
    await screen.send('code', 'moon-tide');
    expect(screen.element.querySelector('[role=alert]')!.textContent).toContain('Ask your tutor.');
    found = DOOR;
    await screen.send('code', 'noon-tide');
    expect(screen.api.asked.at(-1)!.body).toEqual({ code: 'noon-tide' });
    expect(screen.text).not.toContain('No course has this code.');
    expect(screen.button('Go in')).toBeDefined();
  });

  it('by a link that leads nowhere says so, and offers the code', async () => {
    const gone = problem('course-retired', 'This link is no longer in use.', 'Ask your tutor.');
    const screen = await Screen.show(JoinScreen, { link: 'old' }, { 'POST /join/find': gone });
    expect(screen.element.querySelector('h1')!.textContent).toBe('This link doesn’t work');
    expect(screen.text).toContain('Ask your tutor.');
    expect(screen.link('Enter a join code')).toBe('/join');
  });

  it('says that Cuaderno can’t be reached, and tries again', async () => {
    let answer: unknown = new ApiError(NO_LINE, 0);
    const screen = await Screen.show(
      JoinScreen,
      { link: 'abc' },
      { 'POST /join/find': () => answer },
    );
    expect(screen.element.querySelector('h1')!.textContent).toContain('can’t be reached');
    answer = DOOR;
    await screen.press('Try again');
    expect(screen.button('Go in')).toBeDefined();
  });

  it('is remembered, until the link is dead', async () => {
    await Screen.show(JoinScreen, { link: 'abc' }, { 'POST /join/find': DOOR });
    expect(wayBack()).toBe('/join/abc');
    TestBed.resetTestingModule();
    const gone = problem('course-retired', 'This link is no longer in use.');
    await Screen.show(JoinScreen, { link: 'abc' }, { 'POST /join/find': gone });
    expect(wayBack()).toBe('/join');
  });

  it('waits before a lesson that isn’t open, and lets in as soon as it is', async () => {
    jasmine.clock().install();
    try {
      let door = { ...DOOR, open: false };
      const screen = await Screen.show(
        JoinScreen,
        { link: 'abc' },
        { 'POST /join/find': () => door },
      );
      expect(screen.text).toContain('The lesson isn’t open yet');
      expect(screen.button('Go in')).toBeUndefined();
      door = { ...DOOR, open: true };
      jasmine.clock().tick(3000);
      await screen.settles();
      expect(screen.button('Go in')).toBeDefined();
    } finally {
      jasmine.clock().uninstall();
    }
  });

  it('says so where the lesson was closed while the name was typed', async () => {
    let open = true;
    const screen = await Screen.show(
      JoinScreen,
      { link: 'abc' },
      {
        'POST /join/find': () => ({ ...DOOR, open }),
        'POST /join': () => problem('lesson-not-open', 'The lesson isn’t open.'),
      },
    );
    open = false;
    await screen.send('name', 'Ída');
    expect(screen.text).toContain('The lesson isn’t open yet');
    expect(screen.address).toBeNull();
  });
});
