import { changePage, newId, operation } from '@cuaderno/core';
import type { Id, View } from '@cuaderno/core';
import { addInk, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../../../testing/harness.js';
import type { Window } from '../../../testing/harness.js';

const style = { tool: 'pen', ink: 'poppy', width: 2.4 } as const;

describe('what students may do', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('holding');
  });
  afterEach(() => house.close());

  const refuses = async (window: Window, id: Id): Promise<string> =>
    (await window.hears('refused', (m) => m.id === id)).problem.type;

  async function freeze(maren: Window, page: Id, on = true): Promise<void> {
    const { board } = (await house.app.bus.host(house.board))!;
    const op = operation(changePage(board, page, { rules: on ? { trust: 'view' } : {} })!);
    maren.send({ kind: 'ops', ops: [op] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(op.id));
  }

  it('is for those who come late what the class has by now', async () => {
    const { maren } = await house.lesson(false);
    maren.send({ kind: 'trust', who: 'all', trust: 'hands' });
    await maren.hears('class', ({ rules }) => rules.trust === 'hands');
    const late = await house.window(await house.student('Noor'));
    const { you } = await late.hears('welcome');
    const { people } = await late.hears('people', (m) => m.people.some(({ id }) => id === you));
    expect(people.find(({ id }) => id === you)?.trust).toBe('hands');
    // And after a restart as well.
    await house.restart();
    const later = await house.window(await house.student('Jonas'));
    const me = (await later.hears('welcome')).you;
    const there = await later.hears('people', (m) => m.people.some(({ id }) => id === me));
    expect(there.people.find(({ id }) => id === me)?.trust).toBe('hands');
  });

  it('is told when it is on disk, where a pen is given; one that is taken back is told at once', async () => {
    const { maren, ana } = await house.lesson(false);
    const { permissions } = house.app.lessons;
    const trust = permissions.trust.bind(permissions);
    let onDisk = (): void => undefined;
    spyOn(permissions, 'trust').and.callFake((...asked) => ({
      ...trust(...asked),
      kept: new Promise((resolve) => (onDisk = resolve)),
    }));
    maren.send({ kind: 'trust', who: 'all', trust: 'write' });
    // What is said after it is heard before it.
    maren.send({ kind: 'chat', id: newId(), to: 'all', text: 'Ready?' });
    await ana.hears('chat', ({ lines }) => lines.some(({ text }) => text === 'Ready?'));
    const isTold = (): boolean =>
      ana.told.some((m) => m.kind === 'class' && m.rules.trust === 'write');
    expect(isTold()).toBeFalse();
    onDisk();
    await ana.hears('class', ({ rules }) => rules.trust === 'write');
    maren.send({ kind: 'trust', who: 'all', trust: 'view' });
    await ana.hears('class', ({ rules }) => rules.trust === 'view');
  });

  it('begins as the course has it', async () => {
    const rules = { trust: 'write', turn: false } as const;
    expect((await house.tutor.post(`/courses/${house.course.id}/rules`, rules)).statusCode).toBe(
      204,
    );
    const { ana, anaId, page } = await house.lesson(false);
    await ana.hears('class', (m) => m.rules.turn === false);
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(line.id));
    const { people } = await ana.hears('people', (m) => m.people.some(({ id }) => id === anaId));
    expect(people.find(({ id }) => id === anaId)?.trust).toBe('write');
  });

  it('stops on a page where the tutor takes pens in, for everyone but the tutor', async () => {
    const { maren, ana, page } = await house.lesson();
    const stroke = newId();
    const points = Uint8Array.of(1, 10, 10, 0);
    ana.send({ kind: 'live.ink', stroke, start: { page, style }, points });
    const { n } = await maren.hears('live.ink');
    await freeze(maren, page);
    // The line under way is given up on every screen.
    expect(await maren.hears('live.end')).toEqual({ kind: 'live.end', n, item: null });
    ana.send({ kind: 'live.more', piece: Uint8Array.of(64, 2, 2) });
    const [theirs, own] = [addInk(page), addInk(page, 2)];
    ana.send({ kind: 'ops', ops: [theirs] });
    expect(await refuses(ana, theirs.id)).toBe('urn:cuaderno:pens-in');
    maren.send({ kind: 'ops', ops: [own] });
    await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === own.id));
    expect(maren.told.filter(({ kind }) => kind === 'live.ink').length).toBe(1);
    expect(maren.told.some(({ kind }) => kind === 'live.more')).toBeFalse();
    await freeze(maren, page, false);
    const again = addInk(page, 3);
    ana.send({ kind: 'ops', ops: [again] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(again.id));
  });

  it('is said for one or for all, and only they themselves and the tutor know what is said for one', async () => {
    const { maren, ana, anaId } = await house.lesson();
    const noor = await house.window(await house.student('Noor'));
    maren.send({ kind: 'rules', who: anaId, over: { addPages: true, turn: false } });
    await ana.hears('people', ({ people }) =>
      people.some(({ id, rules }) => id === anaId && rules.addPages === true),
    );
    const [spec] = somePages(1);
    const add = addPages([spec!]);
    ana.send({ kind: 'ops', ops: [add] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(add.id));
    const hers = noor.told.flatMap((m) => (m.kind === 'people' ? m.people : []));
    expect(hers.every(({ rules }) => Object.keys(rules).length === 0)).toBeTrue();
    // Said for all, it holds for each.
    maren.send({ kind: 'rules', who: 'all', over: { addPages: false } });
    await noor.hears('class', ({ rules }) => rules.addPages === false);
    await ana.hears('people', ({ people }) =>
      people.some(({ id, rules }) => id === anaId && rules.addPages === undefined && !rules.turn),
    );
    const [other] = somePages(1);
    const more = addPages([other!]);
    ana.send({ kind: 'ops', ops: [more] });
    expect(await refuses(ana, more.id)).toBe('urn:cuaderno:tutor-only');
  });

  it('is for the tutor alone to say', async () => {
    const { ana, anaId, maren, page } = await house.lesson(false);
    ana.send({ kind: 'trust', who: anaId, trust: 'hands' });
    ana.send({ kind: 'rules', who: 'all', over: { addPages: true } });
    ana.send({ kind: 'lead', who: anaId });
    ana.send({ kind: 'plan', endsAt: 1 });
    const open = operation({ kind: 'board.rules', to: {}, from: {} });
    ana.send({ kind: 'ops', ops: [open] });
    // Who may write nothing is told that, before anything is looked at.
    expect(await refuses(ana, open.id)).toBe('urn:cuaderno:no-pen');
    await ana.hearsTimes('problem', 4);
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    expect(await refuses(ana, line.id)).toBe('urn:cuaderno:no-pen');
    const told = maren.told.flatMap((m) => (m.kind === 'class' ? [m] : []));
    expect(told.every(({ lead, endsAt }) => lead === null && endsAt === null)).toBeTrue();
  });

  it('tells the planned end, which the tutor moves', async () => {
    const { maren, ana } = await house.lesson();
    const endsAt = Date.now() + 50 * 60_000;
    maren.send({ kind: 'plan', endsAt });
    await ana.hears('class', (m) => m.endsAt === endsAt);
    await house.restart();
    const back = await house.window(await house.student('Noor'));
    expect((await back.hears('class')).endsAt).toBe(endsAt);
  });
});

describe('the lead', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('the-lead');
  });
  afterEach(() => house.close());

  const part = (page: Id, y: number): View => ({ page, x: 0, y, width: 400, height: 300 });

  it('is handed to a student, whose window the others follow, and taken back', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    const noor = await house.window(await house.student('Noor'));
    maren.send({ kind: 'step', on: true });
    await noor.hears('step', ({ on }) => on);
    maren.send({ kind: 'lead', who: anaId });
    await noor.hears('class', ({ lead }) => lead === anaId);
    ana.send({ kind: 'view', view: part(page, 5), final: true });
    await noor.hears('view', ({ view }) => view.y === 5);
    await maren.hears('view', ({ view }) => view.y === 5);
    // The one who leads may point and light the lamp, and is followed to whatever page they are on.
    ana.send({ kind: 'page.viewed', page });
    await noor.hears('people', ({ people }) =>
      people.some((p) => p.id === anaId && p.page === page),
    );
    const lamp = { page, shape: 'round', x: 10, y: 10, width: 50, height: 50 } as const;
    ana.send({ kind: 'lamp', lamp, final: true });
    await noor.hears('shown', ({ shown }) => shown.lamp?.shape === 'round');
    maren.send({ kind: 'lead', who: null });
    await noor.hears('class', ({ lead }) => lead === null);
    ana.send({ kind: 'view', view: part(page, 9), final: true });
    ana.send({ kind: 'lamp', lamp: null, final: true });
    maren.send({ kind: 'view', view: part(page, 7), final: true });
    await noor.hears('view', ({ view }) => view.y === 7);
    expect(noor.told.some((m) => m.kind === 'view' && m.view.y === 9)).toBeFalse();
    expect(noor.told.filter((m) => m.kind === 'shown').at(-1)).toEqual({
      kind: 'shown',
      shown: { arrows: [], lamp: { ...lamp, board: house.board } },
    });
  });

  it('goes back to the tutor when who has it is sent out', async () => {
    const { maren, anaId } = await house.lesson();
    maren.send({ kind: 'lead', who: anaId });
    const given = await maren.hears('class', ({ lead }) => lead === anaId);
    maren.send({ kind: 'door', who: anaId, word: 'out' });
    const at = maren.told.indexOf(given);
    await maren.hears('class', (m) => m.lead === null && maren.told.indexOf(m) > at);
  });
});
