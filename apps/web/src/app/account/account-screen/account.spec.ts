import { problem, Screen, write } from '../../testing/screen';
import { showTimesIn } from '../../ui/time/shown-zone';
import { AccountScreen } from './account';

const ME = { 'GET /account': { name: 'Maren Solheim', email: 'maren@example.org', zone: null } };

describe('the account', () => {
  afterEach(() => showTimesIn(null));

  const fill = (screen: Screen<AccountScreen>, values: Record<string, string>): void => {
    for (const [name, value] of Object.entries(values))
      write(screen.element.querySelector(`input[name=${name}]`)!, value);
  };

  it('has its password changed, and says who is signed out', async () => {
    const screen = await Screen.show(AccountScreen, {}, { ...ME, 'POST /account/password': null });
    expect(screen.text).toContain('maren@example.org');
    fill(screen, { old: 'low-water-at-ten', next: 'neap-tide-at-noon' });
    await screen.press('Change the password');
    expect(screen.api.asked.at(-1)).toEqual({
      call: 'POST /account/password',
      body: { old: 'low-water-at-ten', password: 'neap-tide-at-noon' },
    });
    expect(screen.text).toContain('You are signed out everywhere but here.');
    expect(screen.element.querySelector<HTMLInputElement>('input[name=old]')!.value).toBe('');
  });

  it('keeps what was typed where the password was wrong', async () => {
    const wrong = problem('wrong-password', 'That isn’t your password.');
    const screen = await Screen.show(AccountScreen, {}, { ...ME, 'POST /account/password': wrong });
    fill(screen, { old: 'guess', next: 'neap-tide-at-noon' });
    await screen.press('Change the password');
    expect(screen.text).toContain('That isn’t your password.');
    expect(screen.element.querySelector<HTMLInputElement>('input[name=next]')!.value).toBe(
      'neap-tide-at-noon',
    );
  });

  it('signs out everywhere else', async () => {
    const answers = { ...ME, 'POST /sign-out/everywhere': null };
    const screen = await Screen.show(AccountScreen, {}, answers);
    await screen.press('Sign out everywhere else');
    expect(screen.text).toContain('You are signed in here alone.');
  });

  it('keeps the time zone by whose clock times are said', async () => {
    const screen = await Screen.show(AccountScreen, {}, { ...ME, 'POST /account/zone': null });
    await screen.choose('Your time zone', 'Europe/Oslo');
    expect(screen.api.asked.at(-1)!.body).toEqual({ zone: 'Europe/Oslo' });
    expect(screen.text).toContain('Times are by this clock from now on.');
    await screen.choose('Your time zone', '');
    expect(screen.api.asked.at(-1)!.body).toEqual({ zone: null });
  });
});
