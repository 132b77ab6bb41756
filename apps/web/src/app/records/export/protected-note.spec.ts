import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply, operation } from '@cuaderno/core/ops';
import type { Board } from '@cuaderno/core/board';
import type { FileHash } from '@cuaderno/core/id';
import { somePages } from '@cuaderno/core/testing';
import { Screen } from '../../testing/screen';
import { ProtectedNote } from './protected-note';

function boardWith(...files: FileHash[]): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const pages = somePages(files.length).map((page, i) => ({
    ...page,
    paper: {
      ...({ kind: 'pdf', file: files[i]!, number: 1, rotate: 0, unit: 1 } as const),
      box: [0, 0, 595, 842] as [number, number, number, number],
    },
  }));
  apply(operation({ kind: 'pages.add', pages }), draft, { by: newId(), at: 1, lesson: null });
  return draft.done();
}

describe('what is said of protected PDFs', () => {
  const [free, bound] = ['a'.repeat(64), 'b'.repeat(64)];
  const papers = {
    isProtected: (file: FileHash) =>
      file === bound ? Promise.resolve(true) : Promise.resolve(false),
  };

  it('is said where a page comes from one, before anything is saved', async () => {
    const screen = await Screen.show(ProtectedNote, { board: boardWith(free, bound), papers }, {});
    expect(screen.text).toContain('protected against being changed');
  });

  it('is said nowhere else', async () => {
    const screen = await Screen.show(ProtectedNote, { board: boardWith(free), papers }, {});
    expect(screen.text.trim()).toBe('');
  });

  it('is not said where it can’t be known just now', async () => {
    const away = { isProtected: () => Promise.reject(new Error('the line is away')) };
    const other = await Screen.show(ProtectedNote, { board: boardWith(free), papers: away }, {});
    expect(other.text.trim()).toBe('');
  });
});
