import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply, operation } from '@cuaderno/core/ops';
import type { Board, PdfPaper } from '@cuaderno/core/board';
import type { TextSpec } from '@cuaderno/core/kinds';
import { addPages, somePages } from '@cuaderno/core/testing';
import { Screen } from '../../testing/screen';
import { FindPanel } from './find-panel';

const print = (number: number): PdfPaper => ({
  kind: 'pdf',
  file: 'a'.repeat(64),
  number,
  box: [0, 0, 300, 400],
  rotate: 0,
  unit: 1,
});
const [typed, one, two] = somePages(3).map((page, i) => ({
  ...page,
  name: '',
  paper: i === 0 ? page.paper : print(i),
}));

function board(words: string): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const stamp = { by: newId(), at: 1, lesson: null };
  const item: TextSpec = {
    kind: 'text',
    layer: 'material',
    order: 'a0',
    frame: { x: 0, y: 0, width: 90, height: 20, turn: 0 },
    text: [{ runs: [{ text: words }] }],
    font: 'plain',
    size: 12,
    colour: '#000000',
    align: 'start',
    slip: null,
    lines: [],
  };
  apply(addPages([typed!, one!, two!]), draft, stamp);
  apply(operation({ kind: 'item.add', page: typed!.id, item }), draft, stamp);
  return draft.done();
}

describe('finding words', () => {
  let screen: Screen<FindPanel>;
  let answers: Map<number, (words: string) => void>;
  let went: string[];

  beforeEach(async () => {
    answers = new Map();
    went = [];
    const papers = {
      words: ({ number }: PdfPaper) =>
        new Promise<string>((done) => void answers.set(number, done)),
    };
    screen = await Screen.show(FindPanel, { board: board('Ebb at Solvik'), papers }, {});
    screen.fixture.componentInstance.chosen.subscribe((page) => went.push(page));
  });

  const type = async (words: string): Promise<void> => {
    const field = screen.element.querySelector('input')!;
    field.value = words;
    field.dispatchEvent(new Event('input'));
    await screen.settles();
  };

  it('shows what is typed at once, and what is printed as soon as it is read', async () => {
    await type('solvik');
    expect(screen.text).toContain('1 place');
    expect(screen.text).toContain('2 pages still to be read');
    answers.get(1)!('Tides at Solvík, November');
    await screen.settles();
    expect(screen.text).toContain('2 places');
    answers.get(2)!('Nothing here');
    await screen.settles();
    expect(screen.text).not.toContain('still to be read');
  });

  it('goes to the page of what was found', async () => {
    answers.get(1)!('High water');
    await screen.settles();
    await type('high');
    screen.element.querySelector<HTMLElement>('li button')!.click();
    expect(went).toEqual([one!.id]);
  });

  it('finds what is on the board now', async () => {
    await type('flood');
    expect(screen.text).toContain('Nothing found yet');
    screen.fixture.componentRef.setInput('board', board('The flood begins'));
    await screen.settles();
    expect(screen.text).toContain('1 place');
  });
});
