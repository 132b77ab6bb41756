import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { newId } from '@cuaderno/core/id';
import { readClientMessage } from '@cuaderno/core/wire';
import type { Id } from '@cuaderno/core/id';
import type { Operation } from '@cuaderno/core/ops';
import { addInk } from '@cuaderno/core/testing';
import { Api } from '../../api/api';
import { ApiError, NO_LINE } from '../../api/problem';
import { PendingStore } from '../../live/pending-store';
import { PretendApi } from '../../testing/screen';
import type { PretendAnswers } from '../../testing/screen';
import { LateOffers } from './late-offers';
import type { OwnLateLines } from './shapes';

describe('late lines of a student', () => {
  const [board, me, earlier, page] = [newId(), newId(), newId(), newId()];
  let api: PretendApi;

  const own: OwnLateLines = {
    ...{ lesson: newId(), courseName: 'Tides', openedAt: 1, waiting: 2, added: 0, left: 0 },
  };
  const offers = (answers: PretendAnswers): LateOffers => {
    api = new PretendApi({ 'GET /late-lines/own': { lessons: [own] }, ...answers });
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: Api, useValue: api }],
    });
    return TestBed.inject(LateOffers);
  };
  const keep = (person: Id, ...ops: Operation[]): void => {
    const store = new PendingStore(board, person);
    for (const op of ops) store.add(op);
  };
  const kept = (person: Id): Id[] => new PendingStore(board, person).load().map(({ id }) => id);
  /** What was brought as somebody. */
  const brought = async (person: Id): Promise<Id[]> => {
    const offers = api.asked.filter(({ call }) => call === `POST /late-lines/of/${person}`);
    const messages = await Promise.all(
      offers.map(async ({ body }) =>
        readClientMessage(new Uint8Array(await (body as Blob).arrayBuffer()), 'student'),
      ),
    );
    return messages.flatMap((one) => (one.kind === 'ops' ? one.ops.map(({ id }) => id) : []));
  };

  afterEach(() => localStorage.clear());

  it('are brought in their order, and forgotten here when the server has answered', async () => {
    const ops = [addInk(page, 1), addInk(page, 2), addInk(page, 3)];
    const [a, b, c] = ops.map(({ id }) => id) as [Id, Id, Id];
    keep(earlier, ...ops);
    const late = offers({
      [`POST /late-lines/of/${earlier}`]: { waiting: [a], kept: [b], refused: [c] },
    });
    const done: Id[] = [];
    late.done.subscribe((ids) => done.push(...ids));
    await late.offerKept(null);
    expect(await brought(earlier)).toEqual([a, b, c]);
    expect(done).toEqual([a, b, c]);
    expect(kept(earlier)).toEqual([]);
    expect([late.stuck(), late.refused(), late.waiting()]).toEqual([0, 1, 2]);
  });

  it('leave alone what goes by the lesson itself, and what is somebody else’s', async () => {
    const [mine, others] = [addInk(page, 1), addInk(page, 2)];
    keep(me, mine);
    keep(earlier, others);
    const late = offers({
      [`POST /late-lines/of/${earlier}`]: new ApiError(
        { ...NO_LINE, type: 'urn:cuaderno:not-found' },
        404,
      ),
    });
    await late.offerKept(me);
    expect(await brought(me)).toEqual([]);
    expect([kept(me), kept(earlier)]).toEqual([[mine.id], [others.id]]);
    expect(late.stuck()).toBe(0);
  });

  it('stay here without a connection, and go when there is one', async () => {
    jasmine.clock().install();
    try {
      const line = addInk(page);
      keep(earlier, line);
      let reach = false;
      const late = offers({
        [`POST /late-lines/of/${earlier}`]: () =>
          reach ? { waiting: [line.id], kept: [], refused: [] } : new ApiError(NO_LINE, 0),
      });
      await late.offerKept(null);
      expect(late.stuck()).toBe(1);
      expect(kept(earlier)).toEqual([line.id]);
      reach = true;
      const arrived = new Promise<void>((done) => late.done.subscribe(() => done()));
      jasmine.clock().tick(5000);
      await arrived;
      expect(kept(earlier)).toEqual([]);
      late.rest();
    } finally {
      jasmine.clock().uninstall();
    }
  });
});
