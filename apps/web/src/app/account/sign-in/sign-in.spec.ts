import { TestBed } from '@angular/core/testing';
import { SignedOut } from '../../api/signed-out';
import { problem, Screen, write } from '../../testing/screen';
import { ForgotScreen } from '../forgot/forgot';
import { ResetScreen } from '../reset/reset';
import { SignInAgain } from './sign-in-again';
import { SignInScreen } from './sign-in';

const NOBODY = { tutor: null, setUp: true, demo: false };
const MAREN = { tutor: { id: 'maren', name: 'Maren', zone: null }, setUp: true, demo: false };

describe('signing in', () => {
  const at = async (to: string | undefined) => {
    const answers = { 'GET /me': NOBODY, 'POST /sign-in': null };
    const screen = await Screen.show(SignInScreen, { to }, answers);
    for (const input of screen.element.querySelectorAll('input')) write(input, 'maren@example.org');
    await screen.press('Sign in');
    return screen.address;
  };

  it('leads to where somebody was on their way to, and to no other site', async () => {
    expect(await at('/boards/b1')).toBe('/boards/b1');
    for (const elsewhere of [
      '//evil.example',
      '/\\evil.example',
      'https://evil.example',
      undefined,
    ]) {
      TestBed.resetTestingModule();
      expect(await at(elsewhere)).toBe('/');
    }
  });
});

describe('a tutor whose session has ended', () => {
  const show = async (answers: object) => {
    const screen = await Screen.show(SignInAgain, {}, { 'GET /me': MAREN, ...answers });
    const signedIn = TestBed.inject(SignedOut).signedInAgain(0);
    await screen.settles();
    return { screen, signedIn };
  };
  const dialog = (): HTMLElement | null => document.querySelector('.p-dialog');
  const submit = async (screen: Screen<SignInAgain>): Promise<void> => {
    dialog()!.querySelector<HTMLButtonElement>('button[type=submit]')!.click();
    await screen.settles();
  };

  it('signs in over what stands on the screen, and goes on with it', async () => {
    const { screen, signedIn } = await show({ 'POST /sign-in': null });
    expect(dialog()!.textContent).toContain('What is on this screen stays');
    for (const input of dialog()!.querySelectorAll('input')) write(input, 'maren@example.org');
    await submit(screen);
    expect(await signedIn).toBeTrue();
  });

  it('is told when that was wrong, and asked again', async () => {
    const wrong = problem('sign-in-failed', 'That e-mail and password don’t belong together.');
    const { screen } = await show({ 'POST /sign-in': wrong });
    for (const input of dialog()!.querySelectorAll('input')) write(input, 'maren@example.org');
    await submit(screen);
    expect(dialog()!.textContent).toContain('don’t belong together');
    expect(dialog()).not.toBeNull();
  });
});

describe('a forgotten password', () => {
  it('is asked for by e-mail, and nobody is told whether there is such an account', async () => {
    const screen = await Screen.show(ForgotScreen, {}, { 'POST /password/forgotten': null });
    write(screen.element.querySelector('input')!, 'maren@example.org');
    await screen.press('Send the letter');
    expect(screen.text).toContain('If maren@example.org has an account, a letter is on its way.');
  });

  it('is chosen anew by a link, or by a code', async () => {
    const answers = { 'POST /password/reset': null };
    const screen = await Screen.show(ResetScreen, { token: 'from-the-link' }, answers);
    write(screen.element.querySelector('input[type=password]')!, 'neap-tide-now');
    await screen.press('Save the password');
    expect(screen.api.asked.at(-1)!.body).toEqual({
      ...{ token: 'from-the-link', password: 'neap-tide-now' },
    });
    expect(screen.address).toBe('/');
    TestBed.resetTestingModule();
    const other = await Screen.show(ResetScreen, {}, answers);
    write(other.element.querySelector('input[name=code]')!, ' from-the-letter ');
    write(other.element.querySelector('input[type=password]')!, 'neap-tide-now');
    await other.press('Save the password');
    expect(other.api.asked.at(-1)!.body).toEqual({
      ...{ token: 'from-the-letter', password: 'neap-tide-now' },
    });
  });
});

describe('a form that isn’t as it should be', () => {
  it('says so beside its fields, sends nothing, and has the focus where it begins', async () => {
    const answers = { 'GET /me': { ...NOBODY, setUp: false }, 'POST /set-up': null };
    const screen = await Screen.show(SignInScreen, {}, answers);
    document.body.append(screen.element);
    const field = (name: string): HTMLInputElement =>
      screen.element.querySelector(`input[name=${name}]`)!;
    expect(screen.text).not.toContain('Please write your first name.');
    write(field('email'), 'maren');
    write(field('password'), 'low water');
    await screen.press('Make the account');
    for (const words of [
      'Please write your first name.',
      'Please enter an e-mail address.',
      'Choose a password of at least 10 characters.',
    ])
      expect(screen.text).toContain(words);
    const said = document.getElementById(field('email').getAttribute('aria-describedby')!);
    expect(said!.textContent).toContain('Please enter an e-mail address.');
    expect(field('email').getAttribute('aria-invalid')).toBe('true');
    expect(document.activeElement).toBe(field('name'));
    expect(screen.api.asked.map(({ call }) => call)).toEqual(['GET /me']);

    write(field('name'), 'Maren');
    write(field('email'), 'maren@example.org');
    write(field('password'), 'low-water-at-ten');
    await screen.settles();
    expect(screen.text).not.toContain('Please');
    expect(field('email').hasAttribute('aria-invalid')).toBeFalse();
    await screen.press('Make the account');
    expect(screen.api.asked.at(-1)!.body).toEqual({
      ...{ name: 'Maren', email: 'maren@example.org', password: 'low-water-at-ten' },
    });
    screen.element.remove();
  });
});
