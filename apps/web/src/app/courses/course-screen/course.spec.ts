import { Subject } from 'rxjs';
import type { BoardInfo, Course } from '../../api/shapes';
import { problem, Screen } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { CourseScreen } from './course';

const course: Course = {
  id: 'c1',
  name: 'Tides',
  linkToken: 'token',
  joinCode: 'KLP427',
  nextUntil: null,
  nextAt: null,
  door: 'ask',
  rules: {},
  retiredAt: null,
  lesson: null,
};
const board = (title: string): BoardInfo => ({ id: title, course: 'c1', title, createdAt: 0 });

/** An upload on its way: the test tells how far it is, and ends it. */
type Sent = Subject<{ readonly part: number } | { readonly answer: unknown }>;

async function open(
  answers: PretendAnswers = {},
): Promise<{ screen: Screen<CourseScreen>; sent: Sent[] }> {
  const sent: Sent[] = [];
  const take = (): Sent => {
    const one: Sent = new Subject();
    sent.push(one);
    return one;
  };
  const screen = await Screen.show(
    CourseScreen,
    { course: 'c1' },
    {
      'GET /courses/c1': { course, boards: [board('Ebb')], takenOut: [], records: [] },
      'GET /courses/c1/guests': [],
      'GET /boards/Ebb/cover': problem('not-found', 'None.'),
      'GET /boards/Other/cover': problem('not-found', 'None.'),
      'UPLOAD /courses/c1/boards/import?name=Neap+%26+spring.pdf': take,
      'UPLOAD /courses/c1/boards/import?name=Other.pdf': take,
      ...answers,
    },
  );
  return { screen, sent };
}

function end(sent: Sent, answer: unknown): void {
  sent.next({ answer });
  sent.complete();
}

async function choose(screen: Screen<CourseScreen>, ...names: string[]): Promise<void> {
  const field = screen.element.querySelector<HTMLInputElement>('input[type=file]')!;
  const files = new DataTransfer();
  for (const name of names) files.items.add(new File(['%PDF-'], name));
  field.files = files.files;
  field.dispatchEvent(new Event('change'));
  await screen.settles();
}

describe('a course', () => {
  it('shows its boards, and how students come in', async () => {
    const { screen } = await open();
    expect(screen.text).toContain('Ebb');
    expect(screen.text).toContain('KLP 427');
    expect(screen.text).toContain('its record appears here');
  });

  it('tells how far a file is, and opens the board made of it', async () => {
    const { screen, sent } = await open();
    await choose(screen, 'Neap & spring.pdf');
    expect(screen.text).toContain('Neap & spring.pdf');
    sent[0]!.next({ part: 0.4 });
    await screen.settles();
    expect(screen.text).toContain('40 %');
    sent[0]!.next({ part: 1 });
    await screen.settles();
    expect(screen.text).toContain('Reading its pages');
    end(sent[0]!, { ...board('Neap & spring'), file: 'f'.repeat(64) });
    await screen.settles();
    expect(screen.address).toContain('/boards/');
  });

  it('takes several files at once, and stays where it is', async () => {
    const { screen, sent } = await open();
    await choose(screen, 'Neap & spring.pdf', 'Other.pdf');
    expect(sent.length).toBe(2);
    end(sent[1]!, { ...board('Other'), file: 'e'.repeat(64) });
    await screen.settles();
    expect(screen.address).toBeNull();
    expect(screen.element.querySelectorAll('a.card').length).toBe(2);
    expect(screen.element.querySelectorAll('.uploads li').length).toBe(1);
  });

  it('takes a file that is dropped anywhere on it', async () => {
    const { screen, sent } = await open();
    const dataTransfer = new DataTransfer();
    dataTransfer.items.add(new File(['%PDF-'], 'Other.pdf'));
    const over = new DragEvent('dragover', { dataTransfer, bubbles: true, cancelable: true });
    screen.element.querySelector('h2')!.dispatchEvent(over);
    // Only then does a browser hand the file over and not open it itself.
    expect(over.defaultPrevented).toBeTrue();
    const drop = new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true });
    screen.element.querySelector('h2')!.dispatchEvent(drop);
    await screen.settles();
    expect(drop.defaultPrevented).toBeTrue();
    expect(sent.length).toBe(1);
    expect(screen.text).toContain('Other.pdf');
  });

  it('stops an upload that is not wanted after all', async () => {
    const { screen, sent } = await open();
    await choose(screen, 'Other.pdf');
    await screen.press('Stop');
    expect(sent[0]!.observed).toBeFalse();
    expect(screen.element.querySelector('.uploads li')).toBeNull();
    expect(screen.address).toBeNull();
  });

  it('says why a file can’t be brought, until that is read', async () => {
    const { screen, sent } = await open();
    await choose(screen, 'Other.pdf');
    sent[0]!.error(problem('file-locked', 'It has a password.', 'Save it without one.'));
    await screen.settles();
    expect(screen.element.querySelector('[role=alert]')!.textContent).toContain(
      'It has a password.',
    );
    await screen.press('All right');
    expect(screen.element.querySelector('.uploads li')).toBeNull();
  });

  it('makes an empty board', async () => {
    const { screen } = await open({ 'POST /courses/c1/boards': board('b9') });
    await screen.press('Empty board');
    expect(screen.address).toContain('/boards/b9');
  });
});
