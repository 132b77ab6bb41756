import type { RecordLink } from '../../api/shared';
import { problem, Screen } from '../../testing/screen';
import { LinksDialog } from './links-dialog';

const link: RecordLink = {
  ...{ id: 'k1', token: 'abc', course: 'c1', lesson: 'l1', forWhom: 'Ida’s father', email: null },
  ...{ may: 'view', names: 'own', student: 'Ida', until: Date.now() + 86_400_000, madeAt: 1 },
  ...{
    state: 'open',
    count: 1,
    openings: [{ at: Date.now(), what: 'opened', lesson: null, device: 'phone' }],
  },
};
const list = 'GET /courses/c1/record-links?lesson=l1';
/** The dialog is laid over the page, outside of the component. */
const dialog = (): HTMLElement => document.querySelector<HTMLElement>('.p-dialog')!;
const words = (): string => dialog().textContent!.replace(/\s+/g, ' ');
const press = (name: string): void =>
  [...dialog().querySelectorAll('button')]
    .find((button) => button.textContent!.trim() === name)!
    .click();

describe('links to a record', () => {
  const show = (answers: object): Promise<Screen<LinksDialog>> =>
    Screen.show(LinksDialog, { course: 'c1', lesson: 'l1', students: ['Ida'] }, answers as never);
  afterEach(() => document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove()));

  it('say for whom they are, what they open and how often they were opened', async () => {
    await show({ [list]: { links: [link] } });
    expect(words()).toContain('Ida’s father');
    expect(words()).toContain('look only');
    expect(words()).toContain('Opened once');
    expect(words()).toContain('opened, on a phone');
    expect(dialog().querySelector<HTMLInputElement>('.address')!.value).toBe(
      `${location.origin}/shared/abc`,
    );
  });

  it('are withdrawn when that is said twice', async () => {
    let state: RecordLink['state'] = 'open';
    const screen = await show({
      [list]: () => ({ links: [{ ...link, state }] }),
      'POST /record-links/k1/withdraw': () => {
        state = 'withdrawn';
        return null;
      },
    });
    press('Withdraw…');
    await screen.settles();
    expect(screen.api.asked.length).toBe(1);
    press('Withdraw');
    await screen.settles();
    expect(words()).toContain('1 no longer open');
    expect(words()).toContain('No link is open.');
  });

  it('say what is wrong where one can’t be made', async () => {
    const screen = await show({
      [list]: { links: [] },
      'POST /courses/c1/record-links': problem('link-until', 'A link can’t last until then.'),
    });
    const who = dialog().querySelector<HTMLInputElement>('input[name=who]')!;
    who.value = 'Ida’s mother';
    who.dispatchEvent(new Event('input'));
    await screen.settles();
    press('Make the link');
    await screen.settles();
    expect(dialog().querySelector('[role=alert]')!.textContent).toContain(
      'A link can’t last until then.',
    );
    expect(who.value).toBe('Ida’s mother');
  });

  it('aren’t made without saying for whom, or for an address that is none', async () => {
    const screen = await show({ [list]: { links: [] } });
    const mail = dialog().querySelector<HTMLInputElement>('input[name=email]')!;
    mail.value = 'ida at home';
    mail.dispatchEvent(new Event('input'));
    await screen.settles();
    press('Make the link and send it');
    await screen.settles();
    expect(words()).toContain('Say for whom the link is.');
    expect(words()).toContain('That isn’t an e-mail address.');
    expect(screen.api.asked.length).toBe(1);
  });

  it('that show one name say whose', async () => {
    const screen = await show({ [list]: { links: [] } });
    const who = dialog().querySelector<HTMLInputElement>('input[name=who]')!;
    who.value = 'Ida’s mother';
    who.dispatchEvent(new Event('input'));
    dialog().querySelector<HTMLInputElement>('input[name=names][value=one]')!.click();
    await screen.settles();
    press('Make the link');
    await screen.settles();
    expect(words()).toContain('Choose whose name is shown.');
    expect(screen.api.asked.length).toBe(1);
  });
});
