import type { Course, ListedRecord } from '../../api/shapes';
import { problem, Screen } from '../../testing/screen';
import { showTimesIn } from '../../ui/time/shown-zone';
import { TodayScreen } from './today';

const ME = { tutor: { id: 't', name: 'Maren Solheim', zone: null }, setUp: true, demo: false };

const course = (name: string, change: Partial<Course> = {}): Course => ({
  id: name,
  name,
  linkToken: 'x',
  joinCode: 'x',
  nextUntil: null,
  nextAt: null,
  door: 'ask',
  rules: {},
  retiredAt: null,
  lesson: null,
  ...change,
});

/** A lesson from then on. */
const comes = (nextAt: number) => ({ nextAt, nextUntil: nextAt + 50 * 60_000 });
const record: ListedRecord = {
  lesson: 'l',
  course: 'Tides',
  courseName: 'Tides',
  title: 'Ebb',
  openedAt: Date.UTC(2026, 10, 17, 16),
  closedAt: Date.UTC(2026, 10, 17, 16, 52),
  pageCount: 3,
  people: ['Ída'],
  hasSummary: true,
  until: null,
};

function today(courses: Course[], records: ListedRecord[] = []) {
  return Screen.show(TodayScreen, {}, { 'GET /today': { courses, records }, 'GET /me': ME });
}

describe('today', () => {
  afterEach(() => showTimesIn(null));

  it('says what to do first where there is nothing yet', async () => {
    const { text } = await today([]);
    expect(text).toContain('No course yet.');
    expect(text).toContain('make one, and upload a PDF');
    expect(text).toContain('When you close a lesson, its record appears here.');
  });

  it('shows the lesson that comes next, whichever course it is of', async () => {
    const soon = Date.now() + 3_600_000;
    const screen = await today([
      course('Sky', comes(soon + 86_400_000)),
      course('Cello', comes(soon)),
      course('Tides'),
    ]);
    const next = screen.element.querySelector('[aria-label="Next lesson"]')!;
    expect(next.textContent).toContain('Cello');
    expect(next.textContent).toContain('50 min');
    expect(next.textContent).toContain('times by your clock');
    expect(screen.element.querySelectorAll('.card').length).toBe(3);
  });

  it('says times by the account’s clock, and those of this machine beside where they differ', async () => {
    const at = Date.UTC(2027, 0, 5, 15, 30);
    showTimesIn('Asia/Tokyo');
    const { element } = await today([course('Cello', comes(at))]);
    const next = element.querySelector('[aria-label="Next lesson"]')!;
    expect(next.textContent).toContain('Wednesday 6 January at 00:30');
    expect(next.textContent).toContain('times by your clock (Asia/Tokyo)');
    expect(next.textContent).toMatch(/\d\d:\d\d–\d\d:\d\d in /);
  });

  it('leads to the lesson that is open, before anything else', async () => {
    const screen = await today([
      course('Sky', comes(Date.now() + 1000)),
      course('Tides', { lesson: { id: 'l', board: 'b1' } }),
    ]);
    expect(screen.element.querySelector('[aria-label="Next lesson"]')).toBeNull();
    const link = screen.element.querySelector<HTMLAnchorElement>('[aria-label="Open lesson"] a')!;
    expect(link.getAttribute('href')).toBe('/boards/b1');
  });

  it('lists records with when, how long and who', async () => {
    const { text } = await today([course('Tides')], [record]);
    expect(text).toMatch(/Ebb .*Tides · 52 min.* · Ída/);
  });

  it('says what is wrong when it can’t be loaded, and tries again', async () => {
    let answer: unknown = problem('x', 'The server is busy.', 'Try again in a minute.');
    const screen = await Screen.show(
      TodayScreen,
      {},
      { 'GET /today': () => answer, 'GET /me': ME },
    );
    expect(screen.text).toContain('The server is busy. Try again in a minute.');
    answer = { courses: [course('Tides')], records: [] };
    await screen.press('Try again');
    expect(screen.text).toContain('Tides');
    expect(screen.text).not.toContain('The server is busy.');
  });

  it('says what is to be done until next time, and which lesson waits for its summary', async () => {
    const late = { closedAt: Date.now() - 3_600_000, hasSummary: false };
    const { element, text } = await today(
      [course('Tides')],
      [
        { ...record, until: 'Draw the moon each evening.' },
        { ...record, ...late, lesson: 'm', title: 'Spring tide' },
        // An old one waits for nothing any more.
        { ...record, hasSummary: false, lesson: 'o', title: 'Neap tide', closedAt: 0 },
      ],
    );
    expect(text).toContain('Until next time: Draw the moon each evening.');
    const waits = [...element.querySelectorAll('[aria-labelledby=unsummed] a')];
    expect(waits.map((one) => one.getAttribute('href'))).toEqual(['/records/m?view=about']);
    expect(waits[0]!.textContent).toContain('Spring tide');
  });

  it('keeps retired courses apart, with their boards and records', async () => {
    const { element, text } = await today([
      course('Sky'),
      course('Cello', { retiredAt: Date.UTC(2026, 5, 1) }),
    ]);
    expect(element.querySelector('.columns .cards')!.textContent).not.toContain('Cello');
    expect(text).toContain('Retired: 1');
    expect(element.querySelector('details')!.textContent).toContain('Cello');
  });
});
