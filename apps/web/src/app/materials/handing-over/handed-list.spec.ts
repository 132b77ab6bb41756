import { Screen } from '../../testing/screen';
import { HandedList } from './handed-list';
import type { HandedFile } from './shapes';

const file = (id: string, name: string, fetchedAt: number | null): HandedFile => ({
  ...{ id, name, kind: 'pdf', bytes: 120_000, course: 'Tides', at: 1, fetchedAt },
});

describe('what a student was handed', () => {
  it('is there to be kept, and says what they have already', async () => {
    const files = [file('h1', 'Tide table.pdf', null), file('h2', 'Moon.pdf', 5)];
    const screen = await Screen.show(HandedList, {}, { 'GET /handed': { files } });
    const links = [...screen.element.querySelectorAll('a')];
    expect(links.map((a) => [a.getAttribute('href'), a.hasAttribute('download')])).toEqual([
      ['/api/handed/h1/file', true],
      ['/api/handed/h2/file', true],
    ]);
    expect(links[0]!.textContent).not.toContain('you have it');
    expect(links[1]!.textContent).toContain('you have it');
    expect(screen.text).toContain('Files for you');
  });

  it('is nothing where there is nothing', async () => {
    const screen = await Screen.show(HandedList, {}, { 'GET /handed': { files: [] } });
    expect(screen.element.textContent.trim()).toBe('');
  });
});
