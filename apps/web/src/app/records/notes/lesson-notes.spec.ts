import { TestBed } from '@angular/core/testing';
import type { Note } from '../../api/shapes';
import { ApiError, NO_LINE } from '../../api/problem';
import { problem, Screen } from '../../testing/screen';
import { LessonNotes } from './lesson-notes';

const PATH = '/lessons/l1/notes';
let count = 0;
const note = (
  text: string,
  follows: string | null = null,
  kind: Note['kind'] = 'summary',
): Note => ({
  ...{ id: `note_${++count}`, kind, text, follows },
  at: new Date(2026, 10, 24, 17, count).getTime(),
});

describe('notes of a lesson', () => {
  const field = (screen: Screen<LessonNotes>, label: string) =>
    screen.element.querySelector<HTMLTextAreaElement>(`textarea[aria-label="${label}"]`);

  async function type(screen: Screen<LessonNotes>, label: string, text: string): Promise<void> {
    const area = field(screen, label)!;
    area.value = text;
    area.dispatchEvent(new Event('input'));
    await screen.settles();
  }

  it('are written and shown as they are kept', async () => {
    const screen = await Screen.show(
      LessonNotes,
      { lesson: 'l1' },
      {
        [`GET ${PATH}`]: { notes: [] },
        [`POST ${PATH}`]: ({ text }: Note) => note(text),
      },
    );
    await screen.press('Write it');
    await type(screen, 'Summary', 'Spring and neap.');
    await screen.press('Keep it');
    expect(field(screen, 'Summary')).toBeNull();
    expect(screen.text).toContain('Spring and neap.');
    expect(screen.text).toContain('Written Tue, 24 Nov 2026');
    expect(screen.api.asked.at(-1)!.body).toEqual({
      ...{ kind: 'summary', text: 'Spring and neap.', follows: null },
    });
  });

  it('are amended in sight: former versions can be read', async () => {
    const first = note('Neap tides');
    const second = note('Spring tides', first.id);
    const screen = await Screen.show(
      LessonNotes,
      { lesson: 'l1' },
      { [`GET ${PATH}`]: { notes: [second, first] } },
    );
    expect(screen.text).toContain('Amended');
    expect(screen.text).toContain('1 former version');
    expect(screen.element.querySelector('details')!.textContent).toContain('Neap tides');
    await screen.press('Amend');
    expect(field(screen, 'Summary')!.value).toBe('Spring tides');
    await type(screen, 'Summary', 'Something else');
    await screen.press('Cancel');
    expect(screen.element.querySelector('.text')!.textContent).toContain('Spring tides');
    expect(screen.api.asked.length).toBe(1);
  });

  it('don’t write over what was amended in another window: both are seen', async () => {
    const first = note('Neap tides');
    const theirs = note('Neap tides, and the moon', first.id);
    const told = [[first], [first, theirs]];
    const screen = await Screen.show(
      LessonNotes,
      { lesson: 'l1' },
      {
        [`GET ${PATH}`]: () => ({ notes: told.shift() }),
        [`POST ${PATH}`]: ({ text, follows }: Note) =>
          follows === theirs.id
            ? note(text, follows)
            : problem('note-amended', 'This was amended in another window meanwhile.'),
      },
    );
    await screen.press('Amend');
    await type(screen, 'Summary', 'Neap tides, and a song');
    await screen.press('Keep it');
    expect(screen.text).toContain('This was amended in another window meanwhile.');
    expect(screen.text).toContain('On the record now: Neap tides, and the moon');
    expect(field(screen, 'Summary')!.value).toBe('Neap tides, and a song');
    await screen.press('Keep it');
    expect(screen.element.querySelector('.text')!.textContent).toContain('and a song');
    expect(screen.text).toContain('2 former versions');
  });

  it('keep what was typed while the server can’t be reached', async () => {
    const screen = await Screen.show(
      LessonNotes,
      { lesson: 'l1', writes: true },
      { [`GET ${PATH}`]: { notes: [] }, [`POST ${PATH}`]: new ApiError(NO_LINE, 0) },
    );
    await type(screen, 'Until next time', 'Watch the moon.');
    expect(await screen.fixture.componentInstance.saveAll()).toBeFalse();
    await screen.settles();
    expect(screen.text).toContain('Cuaderno can’t be reached.');
    expect(field(screen, 'Until next time')!.value).toBe('Watch the moon.');
  });

  it('are as they were being written when they are seen again', async () => {
    const answers = { [`GET ${PATH}`]: { notes: [] } };
    const screen = await Screen.show(LessonNotes, { lesson: 'l1', writes: true }, answers);
    await type(screen, 'Summary', 'Half a sen');
    screen.fixture.destroy();
    const again = TestBed.createComponent(LessonNotes);
    again.componentRef.setInput('lesson', 'l1');
    await screen.settles();
    await again.whenStable();
    const area = (again.nativeElement as Element).querySelector('textarea');
    expect(area!.value).toBe('Half a sen');
  });

  it('are kept all at once, and what says nothing new isn’t sent', async () => {
    const first = note('Neap tides');
    const screen = await Screen.show(
      LessonNotes,
      { lesson: 'l1', writes: true },
      {
        [`GET ${PATH}`]: { notes: [first] },
        [`POST ${PATH}`]: ({ text, kind }: Note) => note(text, null, kind),
      },
    );
    await type(screen, 'Until next time', 'Watch the moon.');
    expect(await screen.fixture.componentInstance.saveAll()).toBeTrue();
    const sent = screen.api.asked.filter(({ call }) => call.startsWith('POST'));
    expect(sent.map(({ body }) => (body as Note).kind)).toEqual(['until']);
    // Seen again, they stand there as they are kept; nothing is being written any more.
    screen.fixture.destroy();
    const again = TestBed.createComponent(LessonNotes);
    again.componentRef.setInput('lesson', 'l1');
    await screen.settles();
    await again.whenStable();
    expect((again.nativeElement as Element).querySelector('textarea')).toBeNull();
  });
});
