import type { FilmSource } from '../film/film-source';
import { problem, Screen } from '../../testing/screen';
import { SaveRecordDialog } from './save-record-dialog';

const source = {
  ...{ log: new Uint8Array(), beside: [], turns: [], people: [], events: [] },
  whole: { from: 0, to: 480_000 },
} satisfies FilmSource;

const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const button = (name: string): HTMLButtonElement =>
  [...dialog().querySelectorAll('button')].find((one) => one.textContent!.trim() === name)!;

describe('what a record is saved as', () => {
  const show = (film: () => Promise<FilmSource>): Promise<Screen<SaveRecordDialog>> =>
    Screen.show(
      SaveRecordDialog,
      {
        ...{
          lesson: 'l1',
          title: 'Tides',
          board: null,
          number: 1,
          papers: {},
          writers: [],
          said: [],
          film,
        },
      },
      {},
    );
  const film = async (screen: Screen<SaveRecordDialog>): Promise<void> => {
    [...dialog().querySelectorAll('label')]
      .find((one) => one.textContent!.includes('Film as WebM'))!
      .querySelector('input')!
      .click();
    await screen.settles();
  };

  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('says how long a film will be', async () => {
    const screen = await show(() => Promise.resolve(source));
    await film(screen);
    expect(dialog().textContent).toContain('It will be');
    expect(button('Save').disabled).toBeFalse();
  });

  it('says why a film can’t be made just now, and fetches the lesson again when asked', async () => {
    let fault: Error | null = problem('gone', 'The lesson could not be fetched.');
    const screen = await show(() => (fault ? Promise.reject(fault) : Promise.resolve(source)));
    await film(screen);
    expect(dialog().textContent).toContain('The lesson could not be fetched. Do this next.');
    expect(dialog().textContent).not.toContain('is being fetched');
    expect(button('Save').disabled).toBeTrue();
    fault = null;
    button('Try again').click();
    await screen.settles();
    expect(dialog().textContent).toContain('It will be');
    expect(button('Save').disabled).toBeFalse();
  });
});
