import { problem, Screen } from '../../testing/screen';
import { HandOverDialog } from './hand-over-dialog';
import type { HandOverList } from './shapes';

const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const words = (): string => dialog().textContent!.replace(/\s+/g, ' ');
const button = (name: string) =>
  [...dialog().querySelectorAll('button')].find(
    (one) => (one.getAttribute('aria-label') ?? one.textContent!.trim()) === name,
  )!;

describe('the tutor hands a file over', () => {
  const asset = { id: 'a1', name: 'Tide table.pdf' };
  const found: HandOverList = {
    students: [
      { id: 'd1', name: 'Ida', here: true },
      { id: 'd2', name: 'Jonas', here: false },
    ],
    handOvers: [
      { id: 'h1', asset: 'a1', fileName: 'x', to: null, at: 1, fetched: [{ name: 'Ida', at: 2 }] },
      { id: 'h2', asset: 'other', fileName: 'y', to: 'Ida', at: 1, fetched: [] },
    ],
  };
  const show = (answers: object = {}): Promise<Screen<HandOverDialog>> =>
    Screen.show(
      HandOverDialog,
      { asset, of: 'c1' },
      {
        'GET /today': { courses: [{ id: 'c1', name: 'Tides' }] },
        'GET /courses/c1/hand-overs': found,
        ...answers,
      },
    );
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('to all students of a course, and sees who has it', async () => {
    const sent: unknown[] = [];
    const screen = await show({
      'POST /courses/c1/hand-overs': (body: unknown) => void sent.push(body),
    });
    expect(words()).toContain('To all students');
    expect(words()).toContain('Ida has it');
    // Of another file nothing is said here.
    expect(dialog().querySelectorAll('.handed li').length).toBe(1);
    button('Hand over').click();
    await screen.settles();
    expect(sent).toEqual([{ asset: 'a1', to: 'all' }]);
  });

  it('to some, one of whom must be chosen', async () => {
    const sent: unknown[] = [];
    const screen = await show({
      'POST /courses/c1/hand-overs': (body: unknown) => void sent.push(body),
    });
    dialog().querySelectorAll<HTMLInputElement>('input[type=radio]')[1]!.click();
    await screen.settles();
    expect(words()).toContain('is here now');
    expect(dialog().querySelectorAll('.some li').length).toBe(2);
    expect(button('Hand over').disabled).toBeTrue();
    dialog().querySelectorAll<HTMLInputElement>('.some input')[1]!.click();
    await screen.settles();
    button('Hand over').click();
    await screen.settles();
    expect(sent).toEqual([{ asset: 'a1', to: ['d2'] }]);
  });

  it('and takes it back; what is wrong is said', async () => {
    const screen = await show({
      'POST /hand-overs/h1/take-back': problem('no-line', 'Cuaderno can’t be reached.'),
    });
    button('Take back from all students').click();
    await screen.settles();
    expect(words()).toContain('Cuaderno can’t be reached.');
    expect(button('Take back from all students').disabled).toBeFalse();
  });

  it('and is told where nobody has been yet, or there is no course', async () => {
    await show({ 'GET /courses/c1/hand-overs': { students: [], handOvers: [] } });
    expect(words()).toContain('nobody has been in this course yet');
  });
});
