import { newId } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import type { Member } from './member.js';
import { OfferQueue } from './offer-queue.js';
import type { Offer } from './offer-queue.js';

describe('what waits to be done on a board', () => {
  const window = (name: string): Member =>
    ({ viewer: { id: name, role: 'student' } }) as unknown as Member;
  const [ana, ben] = [window('ana'), window('ben')];
  const offer = (from: Member | null, together?: object): Offer => ({
    ...{ op: addInk(newId()), from, actor: () => ({ id: '', role: 'student', trust: 'view' }) },
    ...(together ? { together } : {}),
  });
  const turns = (queue: OfferQueue): string[] => {
    const names: string[] = [];
    for (let turn = queue.turn(); turn; turn = queue.turn())
      names.push(turn.map(({ from }) => from?.viewer.id ?? 'server').join('+'));
    return names;
  };

  it('is taken by turns, so that who offers little waits for little', () => {
    const queue = new OfferQueue();
    for (let i = 0; i < 4; i++) queue.offer(offer(ana));
    queue.offer(offer(ben));
    queue.offer(offer(null));
    expect(turns(queue)).toEqual(['ana', 'ben', 'server', 'ana', 'ana', 'ana']);
    expect(queue.isEmpty).toBeTrue();
  });

  it('keeps everyone’s own order', () => {
    const queue = new OfferQueue();
    const offers = Array.from({ length: 30 }, (_, i) => offer(i % 3 === 0 ? ben : ana));
    for (const one of offers) queue.offer(one);
    const had: Offer[] = [];
    for (let turn = queue.turn(); turn; turn = queue.turn()) had.push(...turn);
    for (const who of [ana, ben])
      expect(had.filter(({ from }) => from === who)).toEqual(
        offers.filter(({ from }) => from === who),
      );
  });

  it('has jobs after all that was offered before them, and before all that comes later', async () => {
    const queue = new OfferQueue();
    const done: string[] = [];
    const job = (name: string) => async (): Promise<void> => void done.push(name);
    queue.offer(offer(ana));
    queue.run(job('first'));
    queue.run(job('second'));
    queue.offer(offer(ben));
    expect(queue.job()).toBeNull();
    expect(turns(queue)).toEqual(['ana']);
    await queue.job()!();
    expect(queue.turn()).toBeNull();
    await queue.job()!();
    expect(done).toEqual(['first', 'second']);
    expect(queue.job()).toBeNull();
    expect(turns(queue)).toEqual(['ben']);
    expect([queue.job(), queue.isEmpty]).toEqual([null, true]);
  });

  it('has what belongs together in one turn', () => {
    const queue = new OfferQueue();
    const [first, second] = [{}, {}];
    queue.offer(offer(null, first));
    queue.offer(offer(null, first));
    queue.offer(offer(ana));
    queue.offer(offer(null, second));
    expect(turns(queue)).toEqual(['server+server', 'ana', 'server']);
  });
});
