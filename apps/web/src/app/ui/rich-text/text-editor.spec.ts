import type { RichText } from '@cuaderno/core/text';
import { Screen } from '../../testing/screen';
import { fromDoc, toDoc } from './schema';
import { TextEditor } from './text-editor';

const text: RichText = [
  { runs: [{ text: 'Ask ' }, { text: 'Ida', bold: true }, { text: ' first', slant: true }] },
  { list: 'dots', runs: [{ text: 'ebb' }] },
  { list: 'numbers', runs: [{ text: 'مدّ', bold: true, slant: true }] },
  { runs: [] },
  { runs: [{ text: '潮汐' }] },
];

describe('a text with weight, slant and lists', () => {
  it('comes out of the editor as it went in', () => {
    expect(fromDoc(toDoc(text))).toEqual(text);
    expect(fromDoc(toDoc([]))).toEqual([]);
  });

  describe('in its field', () => {
    let screen: Screen<TextEditor>;
    let changes: RichText[];

    beforeEach(async () => {
      changes = [];
      screen = await Screen.show(TextEditor, { text, label: 'Margin', placeholder: 'Notes' }, {});
      screen.fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    });

    const field = (): HTMLElement => screen.element.querySelector('[role=textbox]')!;
    const select = (node: Node, from: number, to: number): void => {
      field().focus();
      getSelection()!.setBaseAndExtent(node, from, node, to);
      document.dispatchEvent(new Event('selectionchange'));
    };

    it('is shown with its lists, and says what it is', () => {
      expect(field().getAttribute('aria-label')).toBe('Margin');
      expect([...field().querySelectorAll('p')].map((p) => p.className)).toEqual([
        'plain',
        'dots',
        'numbers',
        'plain',
        'plain',
      ]);
      expect(screen.text).not.toContain('Notes');
    });

    it('hands on what was done to it when it is left', async () => {
      select(field().querySelectorAll('p')[4]!.firstChild!, 0, 2);
      await screen.press('Bold');
      expect(changes).toEqual([]);
      screen.fixture.componentInstance.flush();
      expect(changes.at(-1)![4]).toEqual({ runs: [{ text: '潮汐', bold: true }] });
      screen.fixture.componentInstance.flush();
      expect(changes.length).toBe(1);
    });

    it('makes a list of what is chosen, and plain paragraphs again', async () => {
      select(field().querySelectorAll('p')[0]!.firstChild!, 0, 1);
      await screen.press('List with numbers');
      screen.fixture.componentInstance.flush();
      expect(changes.at(-1)![0]!.list).toBe('numbers');
      await screen.press('List with numbers');
      screen.fixture.componentInstance.flush();
      expect(changes.at(-1)![0]!.list).toBeUndefined();
    });

    it('hands on what was not yet when it is taken away in the middle', async () => {
      select(field().querySelectorAll('p')[4]!.firstChild!, 0, 2);
      await screen.press('Slanted');
      screen.fixture.destroy();
      expect(changes.at(-1)?.[4]).toEqual({ runs: [{ text: '潮汐', slant: true }] });
    });

    it('shows what was undone elsewhere', async () => {
      screen.fixture.componentRef.setInput('text', []);
      await screen.settles();
      expect(field().textContent).toBe('');
      expect(screen.text).toContain('Notes');
      expect(changes).toEqual([]);
    });
  });
});
