import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import { addPages, somePages } from '@cuaderno/core/testing';
import { PaperSource } from '../../board/drawing/paper-source';
import { problem, Screen } from '../../testing/screen';
import { PrintRecord } from './print-record';

describe('a record on paper', () => {
  const at = Date.parse('2026-11-24T15:30Z');
  const info = {
    ...{ lesson: 'l1', course: 'c1', courseName: 'Sky-watching', title: 'Star chart' },
    ...{ openedAt: at, closedAt: at + 54 * 60_000, pageCount: 2 },
  };
  const person = (label: string, role: string) => ({
    ...{ id: newId(), name: label, nameOrdinal: 1, role, label },
    spans: [{ from: at, to: at + 30 * 60_000 }],
  });
  const papers = new PaperSource();
  afterAll(() => papers.close());

  const show = (answers: object) => {
    const draft = new BoardDraft(emptyBoard('b'));
    apply(addPages(somePages(2)), draft, { by: newId(), at: 0, lesson: null });
    const people = [person('Maren Solheim', 'tutor'), person('Ida', 'student')];
    const inputs = { info, board: draft.done(), people, papers };
    return Screen.show(PrintRecord, inputs, answers as never);
  };

  it('has what was done, who was there and every page, beside the application while it is printed', async () => {
    const printed: string[] = [];
    spyOn(window, 'print').and.callFake(() => {
      const sheets = document.querySelector('body > .cua-printed')!;
      printed.push(
        sheets.textContent.replace(/\s+/g, ' '),
        String(sheets.querySelectorAll('img').length),
      );
      dispatchEvent(new Event('afterprint'));
    });
    const note = {
      id: 'n',
      lesson: 'l1',
      kind: 'summary',
      text: 'We joined the Bear.',
      at,
      follows: null,
    };
    const screen = await show({ 'GET /lessons/l1/notes': { notes: [note] } });
    let closed = 0;
    screen.fixture.componentInstance.closed.subscribe(() => closed++);
    while (closed === 0) await screen.settles();
    expect(printed[0]).toContain('Sky-watching: Star chart');
    expect(printed[0]).toContain('SummaryWe joined the Bear.');
    expect(printed[0]).toMatch(/Maren Solheim \(tutor\).*30 min.*Ida/);
    expect(printed[0]).not.toContain('Until next time');
    expect(printed[1]).toBe('2');
    expect(document.querySelector('body > .cua-printed')).toBeNull();
  });

  it('says why it can’t be printed', async () => {
    const print = spyOn(window, 'print');
    const screen = await show({
      'GET /lessons/l1/notes': problem('unreachable', 'Cuaderno can’t be reached.'),
    });
    await screen.settles();
    expect(document.body.textContent).toContain('Cuaderno can’t be reached.');
    expect(print).not.toHaveBeenCalled();
  });
});
