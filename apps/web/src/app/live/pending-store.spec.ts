import { newId } from '@cuaderno/core/id';
import { encodeStroke } from '@cuaderno/core/ink';
import { operation } from '@cuaderno/core/ops';
import type { Operation } from '@cuaderno/core/ops';
import { handwriting } from '@cuaderno/core/testing';
import { keptByPeople } from './kept-by-people';
import { PendingStore } from './pending-store';

describe('what waits to be confirmed', () => {
  const board = newId();
  const me = newId();
  const line = (seed: number): Operation =>
    operation({ kind: 'ink.add', page: newId(), ink: encodeStroke(handwriting(seed)) });

  afterEach(() => localStorage.clear());

  it('is there after a reload, in its order, ink and all', () => {
    const ops = Array.from({ length: 12 }, (_, i) => line(i));
    const store = new PendingStore(board, me);
    store.load();
    for (const op of ops) expect(store.add(op)).toBeTrue();
    expect(new PendingStore(board, me).load()).toEqual(ops);
  });

  it('goes on in order after a reload', () => {
    const [a, b] = [line(1), line(2)];
    new PendingStore(board, me).add(a);
    const again = new PendingStore(board, me);
    again.load();
    again.add(b);
    expect(new PendingStore(board, me).load().map(({ id }) => id)).toEqual([a.id, b.id]);
  });

  it('is gone once it was confirmed, and is nobody else’s', () => {
    const [a, b] = [line(1), line(2)];
    const store = new PendingStore(board, me);
    store.add(a);
    store.add(b);
    store.remove(a.id);
    expect(new PendingStore(board, me).load().map(({ id }) => id)).toEqual([b.id]);
    expect(new PendingStore(board, newId()).load()).toEqual([]);
    expect(new PendingStore(newId(), me).load()).toEqual([]);
  });

  it('is found by board and person, no matter who was here', () => {
    const other = newId();
    for (const person of [me, other]) {
      new PendingStore(board, person).add(line(1));
      new PendingStore(board, person).add(line(2));
    }
    localStorage.setItem('cuaderno.private-notes', 'open');
    localStorage.setItem('cuaderno.pending.half', 'x');
    expect(keptByPeople()).toEqual(
      jasmine.arrayWithExactContents([
        { board, person: me, count: 2 },
        { board, person: other, count: 2 },
      ]),
    );
  });

  it('by the build of 2026-11-30 is there in the words of now', () => {
    // As that build wrote it down: `apps/server/test-data/2026-11-30/read.json`.
    const text =
      'hKJpZKw1dDlBS1dtUUY2X0qka2luZKhpdGVtLmFkZKRwYWdlrGJxbDZUWmc2VTJjSaRpdGVthqVmcmFtZYWheDyheVCld2lkdGjMjKZoZWlnaHRapHR1cm4PpWxheWVyo2lua6VvcmRlcqJhOaRraW5kpG1hcmukbWFya6Rsb29rpmNvbG91cqcjMWQyYjRm';
    localStorage.setItem(`cuaderno.pending.${board}.${me}.000000001.5t9AKWmQF6_J`, text);
    const [op] = new PendingStore(board, me).load();
    expect(op).toEqual(
      jasmine.objectContaining({
        ...{ id: '5t9AKWmQF6_J', kind: 'item.add' },
        item: jasmine.objectContaining({ kind: 'mark', mark: 'attention', layer: 'ink' }),
      }),
    );
  });

  it('by a later build waits for that one', () => {
    const key = `cuaderno.pending.${board}.${me}.000000001.xxxxxxxxxxxx`;
    localStorage.setItem(key, '99:gA==');
    expect(new PendingStore(board, me).load()).toEqual([]);
    expect(localStorage.getItem(key)).not.toBeNull();
  });

  it('passes over what was damaged', () => {
    new PendingStore(board, me).add(line(1));
    localStorage.setItem(`cuaderno.pending.${board}.${me}.000000002.xxxxxxxxxxxx`, '%%%');
    expect(new PendingStore(board, me).load().length).toBe(1);
  });

  it('says when the machine has no room', () => {
    const full = {
      ...localStorage,
      setItem: () => {
        throw new DOMException('full', 'QuotaExceededError');
      },
    } as unknown as Storage;
    expect(new PendingStore(board, me, full).add(line(1))).toBeFalse();
  });
});
