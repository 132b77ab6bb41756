import type { Deletion, StudentData } from '../../api/student-data';
import { problem, Screen } from '../../testing/screen';
import { DeletionDialog } from './deletion-dialog';
import { reportText } from './report-text';

const seat = {
  ...{ person: 'p1', nameOrdinal: 1, lesson: 'l1', course: 'c1', courseName: 'Tides', openedAt: 1 },
  ...{ open: false, ink: 12, said: { chat: 1 } },
};
const data: StudentData = {
  seats: [
    seat,
    { ...seat, person: 'p2', lesson: 'l2', ink: 1, said: { chat: 0 } },
    { ...seat, person: 'p3', lesson: 'l3', course: 'c2', courseName: 'Cello', ink: 0 },
  ],
  ...{ links: 1, browsers: 2, named: 3 },
};
const deletion: Deletion = {
  id: 'd1',
  at: new Date(2026, 10, 26, 12).getTime(),
  report: {
    ...{ alias: 'Former student 1', courses: ['Tides'], lessons: 2, ink: 'take-out', boards: 1 },
    ...{
      entries: 13,
      said: { chat: 1 },
      links: 1,
      letters: 1,
      guestLinks: 0,
      browsers: 2,
      renamed: 3,
    },
    left: [{ where: 'page', title: 'Ebb', pages: [1, 4] }],
  },
};
/** The dialog is laid over the page, outside of the component. */
const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const words = (): string => dialog().textContent!.replace(/\s+/g, ' ');
const button = (name: string): HTMLButtonElement =>
  [...dialog().querySelectorAll('button')].find((one) => one.textContent!.trim() === name)!;
const tick = (label: string): void =>
  [...dialog().querySelectorAll('label')]
    .find((one) => one.textContent!.includes(label))!
    .querySelector('input')!
    .click();

describe('deleting a student’s data', () => {
  const show = (answers: object): Promise<Screen<DeletionDialog>> =>
    Screen.show(DeletionDialog, { name: 'Ida' }, {
      'POST /students/data': data,
      ...answers,
    } as never);
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('says first what there is, course by course', async () => {
    await show({});
    expect(words()).toContain('2 lessons · 13 lines and texts · 1 message');
    expect(words()).toContain('1 lesson · 0 lines and texts · 1 message');
    expect(words()).toContain('1 link to records and 2 browsers');
  });

  it('is done as it was chosen, once that it can’t be taken back is known', async () => {
    const screen = await show({ 'POST /students/delete': deletion });
    expect(button('Delete for good').disabled).toBeTrue();
    tick('I know');
    tick('Cello');
    tick('Leave it');
    tick('Replace the name');
    await screen.settles();
    button('Delete for good').click();
    await screen.settles();
    expect(screen.api.asked.at(-1)).toEqual({
      call: 'POST /students/delete',
      body: { name: 'Ida', people: ['p1', 'p2'], ink: 'keep', named: false },
    });
    expect(words()).toContain('Their name is now “Former student 1”, in 2 lessons of Tides');
    expect(words()).toContain('It is typed on “Ebb”, pages 1, 4.');
    expect(words()).not.toContain('Ida');
  });

  it('waits for an open lesson, and can leave it out', async () => {
    const screen = await show({
      'POST /students/data': { ...data, seats: [{ ...seat, open: true }, data.seats[1]!] },
    });
    tick('I know');
    await screen.settles();
    expect(words()).toContain('A lesson with them goes on just now.');
    expect(button('Delete for good').disabled).toBeTrue();
    tick('goes on just now');
    await screen.settles();
    expect(button('Delete for good').disabled).toBeFalse();
  });

  it('says what is wrong where nothing could be deleted', async () => {
    const screen = await show({
      'POST /students/delete': problem('student-in-lesson', 'This student is in a lesson.'),
    });
    tick('I know');
    await screen.settles();
    button('Delete for good').click();
    await screen.settles();
    expect(words()).toContain('This student is in a lesson. Do this next.');
    expect(button('Delete for good').disabled).toBeFalse();
  });

  it('leaves a report that can be kept as text', () => {
    const text = reportText(deletion);
    expect(text).toContain('Thu, 26 Nov 2026');
    expect(text).toContain('- 1 message from them or to them alone was deleted.\r\n');
    expect(text).toContain('13 entries of the log are empty now');
    expect(text).toContain('delete them where they are');
  });
});
