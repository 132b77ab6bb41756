import { Screen } from '../testing/screen';
import { LineNotice } from './line-notice';

describe('the notice of the line', () => {
  const words = async (state: string, waiting = 0) =>
    (await Screen.show(LineNotice, { state, waiting }, {})).text;

  it('says nothing while all is well', async () => {
    expect(await words('live', 3)).toBe('');
    expect(document.querySelector('[role=status]')).toBeNull();
  });

  it('says so at once where the server doesn’t answer, before the line counts as away', async () => {
    const screen = await Screen.show(LineNotice, { state: 'live', quiet: true }, {});
    expect(screen.text).toContain('doesn’t answer just now. Write on');
    screen.fixture.componentRef.setInput('quiet', false);
    await screen.settles();
    expect(screen.text).toBe('');
  });

  it('is calm while the line is away, and counts what waits', async () => {
    const screen = await Screen.show(LineNotice, { state: 'away', waiting: 0 }, {});
    expect(screen.text).toContain('Write on: all is kept here');
    expect(screen.text).not.toContain('wait.');
    screen.fixture.componentRef.setInput('waiting', 1);
    await screen.settles();
    expect(screen.text).toContain('One change waits.');
    screen.fixture.componentRef.setInput('waiting', 12);
    await screen.settles();
    expect(screen.text).toContain('12 changes wait.');
  });
});
