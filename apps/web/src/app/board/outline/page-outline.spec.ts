import { emptyBoard } from '@cuaderno/core/board';
import type { Board, PdfPaper } from '@cuaderno/core/board';
import { fold } from '@cuaderno/core/log';
import type { Operation } from '@cuaderno/core/ops';
import { addInk, addMark, addPages, somePages } from '@cuaderno/core/testing';
import { Screen } from '../../testing/screen';
import { PageOutline } from './page-outline';

const IDA = 'ida';

describe('the page in words', () => {
  const [plain, printed] = somePages(2);
  const paper: PdfPaper = {
    ...{ kind: 'pdf', file: 'f'.repeat(64), number: 2 },
    ...{ box: [0, 0, 595, 842], rotate: 0, unit: 1 },
  };
  const pages = [plain!, { ...printed!, paper }];
  let asked: number[];
  let screen: Screen<PageOutline>;

  function board(...ops: Operation[]): Board {
    const entries = [addPages(pages), ...ops].map((op, i) => ({
      ...{ seq: i + 1, by: IDA, at: i, lesson: null, op },
    }));
    return fold(emptyBoard('b'), entries);
  }
  async function passes(ms: number): Promise<void> {
    jasmine.clock().tick(ms);
    await screen.settles();
  }
  async function show(page: string, ...ops: Operation[]): Promise<void> {
    screen.fixture.componentRef.setInput('board', board(...ops));
    screen.fixture.componentRef.setInput('page', page);
    await screen.settles();
  }

  beforeEach(async () => {
    jasmine.clock().install();
    asked = [];
    const words = ({ number }: { number: number }): Promise<string> => {
      asked.push(number);
      return Promise.resolve('High water\n\nLow water');
    };
    const authorOf = (id: string): object | null => (id === IDA ? { name: 'Ida' } : null);
    const inputs = { board: board(), page: pages[0]!.id, papers: { words }, authorOf };
    screen = await Screen.show(PageOutline, inputs, {});
  });
  afterEach(() => jasmine.clock().uninstall());

  it('says what lies on it and who wrote where, some moments after it was written', async () => {
    await passes(2000);
    expect(screen.text).toBe('It is empty.');
    expect(screen.element.querySelector('section')!.ariaLabel).toBe('Page 1 in words');
    await show(pages[0]!.id, addMark(pages[0]!.id), addInk(pages[0]!.id));
    expect(screen.text).toBe('It is empty.');
    await passes(2000);
    expect(screen.text).toContain('Tick');
    expect(screen.text).toMatch(/Ida wrote one line, (top|middle|bottom)/);
  });

  it('has what is printed on it first, and reads nothing of a page that is turned away', async () => {
    await show(pages[1]!.id, addMark(pages[1]!.id));
    await passes(200);
    await show(pages[0]!.id);
    await passes(2000);
    expect(asked).toEqual([]);
    await show(pages[1]!.id, addMark(pages[1]!.id));
    // Nothing of the page before is said meanwhile.
    expect(screen.text).toBe('Read what is printed on it');
    await passes(2000);
    await passes(0);
    expect(asked).toEqual([2]);
    expect(screen.text).toBe('High waterLow waterTick');
    // More is written there: what is printed stays what it is.
    await show(pages[1]!.id, addMark(pages[1]!.id), addInk(pages[1]!.id));
    await passes(2000);
    expect(asked).toEqual([2]);
  });
});
