import { TestBed } from '@angular/core/testing';
import { problem, Screen } from '../../testing/screen';
import { Shortcuts } from './shortcuts';
import { ShortcutsDialog } from './shortcuts-dialog';

describe('the list of shortcuts', () => {
  let screen: Screen<ShortcutsDialog>;
  let shortcuts: Shortcuts;

  beforeEach(async () => {
    localStorage.clear();
    screen = await Screen.show(ShortcutsDialog, { isTutor: true }, {});
    shortcuts = TestBed.inject(Shortcuts);
  });
  afterEach(() => localStorage.clear());

  const keyOf = (label: string): HTMLButtonElement =>
    [...document.querySelectorAll<HTMLButtonElement>('button.key')].find((one) =>
      one.getAttribute('aria-label')?.startsWith(`Key for ${label}:`),
    )!;
  const said = (): string => document.querySelector('.said')!.textContent.trim();
  async function press(label: string, key: string, more: KeyboardEventInit = {}): Promise<void> {
    keyOf(label).dispatchEvent(
      new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }),
    );
    await screen.settles();
  }
  async function choose(label: string): Promise<void> {
    keyOf(label).click();
    await screen.settles();
  }

  it('gives something another key', async () => {
    await choose('Pen');
    await press('Pen', 'q');
    expect(said()).toBe('“Pen” is Q now.');
    expect(shortcuts.of('pen')).toEqual(['q']);
    expect(keyOf('Pen').getAttribute('aria-label')).toBe('Key for Pen: Q');
  });

  it('refuses one that does something else, and says what', async () => {
    await choose('Pen');
    await press('Pen', 'h');
    expect(said()).toContain('H is the key for “Highlighter”');
    expect(shortcuts.of('pen')).toEqual(['p']);
    await press('Pen', 'F2');
    expect(said()).toContain('can’t be chosen');
    // Whoever leaves it at that has changed nothing.
    await press('Pen', 'Escape');
    expect(shortcuts.of('pen')).toEqual(['p']);
  });

  it('leaves something without a key, and sets all of them back', async () => {
    await choose('Take all pens back');
    await press('Take all pens back', 'Delete');
    expect(shortcuts.of('pens-back')).toEqual([]);
    await screen.press('Reset all keys');
    expect(shortcuts.of('pens-back')).toEqual(['Shift+P']);
  });

  it('turns off those that are a letter alone', async () => {
    document.querySelector<HTMLInputElement>('input[role=switch]')!.click();
    await screen.settles();
    expect(shortcuts.of('pen')).toEqual([]);
    expect(keyOf('Pen').disabled).toBeTrue();
  });

  it('has nothing of the tutor’s for a student', async () => {
    const isThere = (): boolean => keyOf('Take all pens back') !== undefined;
    expect(isThere()).toBeTrue();
    screen.fixture.componentRef.setInput('isTutor', false);
    await screen.settles();
    expect(isThere()).toBeFalse();
  });

  it('says when it couldn’t be kept, and tries again', async () => {
    let tries = 0;
    const keep = (): Promise<void> =>
      ++tries === 1
        ? Promise.reject(problem('no-connection', 'No connection.'))
        : Promise.resolve();
    shortcuts.keepBy(keep, shortcuts.settings());
    await choose('Pen');
    await press('Pen', 'q');
    expect(document.body.textContent).toContain('No connection.');
    // It holds in this window all the same.
    expect(shortcuts.of('pen')).toEqual(['q']);
    await screen.press('Try again');
    expect(tries).toBe(2);
    expect(document.body.textContent).not.toContain('No connection.');
  });
});
