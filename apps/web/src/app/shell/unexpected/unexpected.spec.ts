import { TestBed } from '@angular/core/testing';
import { problem, Screen } from '../../testing/screen';
import { UnexpectedErrors } from './unexpected-errors';
import { UnexpectedNotice } from './unexpected-notice';

describe('an error that nobody expected', () => {
  let screen: Screen<UnexpectedNotice>;
  let logged: jasmine.Spy;
  const comes = async (error: unknown): Promise<void> => {
    TestBed.inject(UnexpectedErrors).handleError(error);
    await screen.settles();
  };

  beforeEach(async () => {
    logged = spyOn(console, 'error');
    screen = await Screen.show(UnexpectedNotice, {}, {});
  });

  it('is told in a sentence, with a way on, and put away when it was read', async () => {
    expect(screen.text).toBe('');
    await comes(new TypeError('x is not a function'));
    expect(screen.text).toContain('Something on this screen went wrong.');
    expect(screen.text).not.toContain('function');
    expect(screen.button('Reload')).toBeDefined();
    await screen.press('Close');
    expect(screen.text).toBe('');
    expect(logged).toHaveBeenCalledTimes(1);
  });

  it('is told in the server’s words, where those are what failed', async () => {
    await comes(problem('full', 'The disk is full.', 'Make room, then try again.'));
    expect(screen.text).toContain('The disk is full. Make room, then try again.');
  });

  it('says what didn’t come, in each browser’s words for it', async () => {
    for (const words of [
      'Failed to fetch dynamically imported module: https://x/chunk-A.js',
      'error loading dynamically imported module: https://x/chunk-B.js',
      'Importing a module script failed.',
    ]) {
      await comes(new TypeError(words));
      expect(screen.text).toContain('This part of Cuaderno didn’t come. Check the connection');
      await screen.press('Close');
    }
  });

  it('is told once, though two tell of it; what was given up is no error', async () => {
    const error = new Error('once');
    await comes(error);
    await screen.press('Close');
    await comes(error);
    await comes(new DOMException('given up', 'AbortError'));
    await comes(new ErrorEvent('error', { message: 'ResizeObserver loop limit exceeded' }));
    expect(screen.text).toBe('');
  });
});
