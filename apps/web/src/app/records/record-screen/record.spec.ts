import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { boardSnapshot, BoardDraft, emptyBoard } from '@cuaderno/core/board';
import { NOTHING_BESIDE } from '@cuaderno/core/features';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import { pack } from '@cuaderno/core/wire';
import { addPages, somePages } from '@cuaderno/core/testing';
import { problem, Screen } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { RecordScreen } from './record';
import { RecordScreenHarness } from './record.harness';

const OPENED = Date.UTC(2026, 10, 24, 15, 30);

describe('the screen of a record', () => {
  let screen: Screen<RecordScreen>;
  let harness: RecordScreenHarness;

  const board = (): Uint8Array => {
    const draft = new BoardDraft(emptyBoard('b1'));
    apply(addPages(somePages(2)), draft, { by: newId(), at: 0, lesson: null });
    return pack(boardSnapshot(draft.done(), 1));
  };

  async function show(answers: PretendAnswers = {}): Promise<void> {
    screen = await Screen.show(
      RecordScreen,
      { lesson: 'l1' },
      {
        'GET /records/l1': {
          record: {
            ...{ lesson: 'l1', title: 'Orion', course: 'c1', courseName: 'Sky-watching' },
            ...{ pageCount: 2, openedAt: OPENED, closedAt: OPENED + 54 * 60_000 },
          },
          attendance: [
            {
              ...{ id: 'ida', name: 'Ida', role: 'student', nameOrdinal: 1 },
              spans: [{ from: OPENED, to: OPENED + 60_000 }],
            },
          ],
          indexing: { state: 'whole', done: 0, of: 0 },
          ...{ statistics: null, goesOn: null, said: [] },
        },
        'GET /records/l1/board': board(),
        'GET /records/l1/timeline': NOTHING_BESIDE,
        'GET /records/l1/log': pack({
          before: boardSnapshot(emptyBoard('b1'), 0),
          entries: [],
        }),
        'GET /lessons/l1/notes': { notes: [] },
        'GET /late-lines': { waiting: [] },
        ...answers,
      },
    );
    screen.element.style.cssText = 'display:grid;width:1280px;height:800px';
    harness = await TestbedHarnessEnvironment.harnessForFixture(
      screen.fixture,
      RecordScreenHarness,
    );
  }

  afterEach(() => screen.fixture.destroy());

  it('has the board as the lesson left it, how long it was, and who was there', async () => {
    await show();
    expect(await harness.has('cua-stage')).toBeTrue();
    expect(await harness.offers()).toEqual(
      jasmine.arrayContaining(['Before', 'At the end', 'Replay', 'Statistics']),
    );
    const text = await harness.text();
    for (const words of ['Orion', '54 min', 'Ida']) expect(text).toContain(words);
  });

  it('is seen again as it grew, once somebody asks', async () => {
    await show();
    expect(screen.api.asked.map(({ call }) => call)).not.toContain('GET /records/l1/log');
    await harness.look('Replay');
    await screen.settles();
    expect(await harness.has('cua-replay-bar')).toBeTrue();
    await harness.look('Before');
    await screen.settles();
    expect(await harness.text()).toContain('There was nothing on this board yet.');
  });

  it('says what keeps it away, and offers to try again', async () => {
    await show({ 'GET /records/l1': problem('unreachable', 'Cuaderno can’t be reached.') });
    expect(await harness.text()).toContain('Cuaderno can’t be reached.');
    expect(screen.button('Try again')).toBeDefined();
  });
});
