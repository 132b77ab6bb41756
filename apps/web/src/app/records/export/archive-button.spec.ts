import { Screen, problem } from '../../testing/screen';
import { inShownZone } from '../../ui/time/shown-zone';
import { ArchiveButton } from './archive-button';

const LABEL = 'Save everything of Ida (zip)';
const MADE = `DOWNLOAD /students/archive.zip?name=Ida&${new URLSearchParams(inShownZone())}`;

describe('saving everything', () => {
  /** @param described what the server says of the archive beforehand */
  const shown = async (described: unknown): Promise<Screen<ArchiveButton>> => {
    const screen = await Screen.show(
      ArchiveButton,
      { label: LABEL, of: { student: 'Ida' } },
      {
        'GET /students/archive?name=Ida': described,
        [MADE]: problem('not-found', 'It is gone.'),
      },
    );
    await screen.press(LABEL);
    return screen;
  };
  const calls = (screen: Screen<ArchiveButton>): string[] =>
    screen.api.asked.map(({ call }) => call);

  it('begins at once where no PDF is protected', async () => {
    const screen = await shown({ protected: [] });
    expect(calls(screen)).toContain(MADE);
    expect(screen.text).not.toContain('Protected');
  });

  it('names the PDFs that are protected first, and is the tutor’s decision', async () => {
    const screen = await shown({ protected: ['Tide tables.pdf', 'Buoys.pdf'] });
    expect(screen.text).toContain('Tide tables.pdf, Buoys.pdf.');
    expect(screen.text).toContain('Copies in the archive are not');
    await screen.press('Cancel');
    expect(calls(screen)).not.toContain(MADE);
    await screen.press(LABEL);
    await screen.press('Save the archive');
    expect(calls(screen)).toContain(MADE);
  });

  it('says why nothing is saved where that can’t be asked', async () => {
    const screen = await shown(problem('away', 'The line is away.'));
    expect(screen.text).toContain('The line is away.');
    expect(calls(screen)).not.toContain(MADE);
  });
});
