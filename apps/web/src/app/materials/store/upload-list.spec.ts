import { TestBed } from '@angular/core/testing';
import { Screen } from '../../testing/screen';
import { UploadQueue } from './upload-queue';
import { UploadList } from './upload-list';

describe('what came to materials', () => {
  it('is remarked on where not all of it is kept, until that is read', async () => {
    const screen = await Screen.show(UploadList, {}, {});
    expect(screen.text.trim()).toBe('');
    TestBed.inject(UploadQueue).remarked.set([
      { name: 'Ebb and flood.gif', remarks: ['frames'] },
      { name: 'Surf.mkv', remarks: ['some-browsers'] },
    ]);
    await screen.settles();
    expect(screen.text).toContain(
      '“Ebb and flood.gif” moves; here its first picture stands still.',
    );
    expect(screen.text).toContain('“Surf.mkv” is of a kind that some browsers don’t play.');
    await screen.press('All right');
    expect(screen.text).not.toContain('Surf');
  });
});
