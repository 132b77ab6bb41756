import { newId } from '@cuaderno/core';
import type { ChatTo, Id } from '@cuaderno/core';
import { House } from '../../../testing/harness.js';
import type { Window } from '../../../testing/harness.js';

describe('the chat', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('talking');
  });
  afterEach(() => house.close());

  const says = (window: Window, to: ChatTo, text: string): Id => {
    const id = newId();
    window.send({ kind: 'chat', id, to, text });
    return id;
  };
  const reads = (window: Window, id: Id) =>
    window.hears('chat', ({ lines }) => lines.some((line) => line.id === id));
  const texts = (window: Window): string[] =>
    window.told.flatMap((m) => (m.kind === 'chat' ? m.lines.map(({ text }) => text) : []));

  it('is read by all, or by the tutor alone', async () => {
    const { maren, ana, anaId } = await house.lesson(false);
    const noor = await house.window(await house.student('Noor'));
    await noor.hears('class');
    const all = says(ana, 'all', 'Low water is at ten');
    await Promise.all([maren, ana, noor].map((window) => reads(window, all)));
    const own = says(ana, 'tutor', 'I am lost');
    await Promise.all([maren, ana].map((window) => reads(window, own)));
    const back = says(maren, anaId, 'Look at page 2');
    await reads(ana, back);
    const last = says(maren, 'all', 'Well done');
    await reads(noor, last);
    expect(texts(noor)).toEqual(['Low water is at ten', 'Well done']);
    // Between students nothing is said that the tutor doesn't see.
    says(noor, anaId, 'psst');
    await noor.hearsProblem('chat-off');
  });

  it('is there for who comes late and after a restart; emptied, it is gone for all', async () => {
    const { maren, ana, student } = await house.lesson(false);
    await reads(ana, says(ana, 'all', 'One'));
    await reads(ana, says(ana, 'tutor', 'Two'));
    await house.restart();
    const back = await house.window(student.movedTo(house.app));
    await back.hears('chat');
    expect(texts(back)).toEqual(['One', 'Two']);
    const noor = await house.window(await house.student('Noor'));
    await noor.hears('chat');
    expect(texts(noor)).toEqual(['One']);
    const again = await house.window(house.tutor, `/live/boards/${house.board}`);
    await again.hears('chat');
    again.send({ kind: 'chat.empty' });
    await noor.hears(
      'chat.empty',
      (m) => noor.told.indexOf(m) > noor.told.findIndex((t) => t.kind === 'chat'),
    );
    const late = await house.window(await house.student('Jonas'));
    await late.hears('class');
    await reads(late, says(again, 'all', 'Three'));
    expect(texts(late)).toEqual(['Three']);
    expect(maren.closed).not.toBeNull();
  });

  it('can be switched off, to all and to the tutor', async () => {
    const { maren, ana } = await house.lesson(false);
    maren.send({ kind: 'rules', who: 'all', over: { chatAll: false } });
    await ana.hears('class', ({ rules }) => rules.chatAll === false);
    says(ana, 'all', 'Hello?');
    await ana.hearsProblem('chat-off');
    await reads(maren, says(ana, 'tutor', 'May I write?'));
    maren.send({ kind: 'rules', who: 'all', over: { chatTutor: false } });
    await ana.hears('class', ({ rules }) => rules.chatTutor === false);
    says(ana, 'tutor', 'Now?');
    await ana.hearsTimes('problem', 2);
    await reads(maren, says(maren, 'all', 'The tutor always may'));
    expect(texts(maren)).toEqual(['May I write?', 'The tutor always may']);
  });

  it('takes a message once, however often it comes, and nothing empty, too long or too fast', async () => {
    const { maren, ana } = await house.lesson(false);
    const id = says(ana, 'all', '  caf\u0065\u0301\u202e ');
    ana.send({ kind: 'chat', id, to: 'all', text: 'other words' });
    await reads(maren, id);
    says(ana, 'all', ' \u200e ');
    await ana.hearsProblem('chat-text');
    says(ana, 'all', 'x'.repeat(2001));
    await ana.hearsTimes('problem', 2);
    for (let i = 0; i < 12; i++) says(ana, 'all', `Flood ${i}`);
    await ana.hearsProblem('chat-too-fast');
    await reads(ana, says(maren, 'all', 'Calm'));
    expect(texts(maren)[0]).toBe('café');
    expect(texts(maren).length).toBeLessThan(12);
  });
});

describe('hands and signals', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('hands');
  });
  afterEach(() => house.close());

  it('are in the order in which they went up; the tutor lowers one, or all', async () => {
    const { maren, ana, anaId } = await house.lesson(false);
    const noor = await house.window(await house.student('Noor'));
    const noorId = (await noor.hears('welcome')).you;
    const hands = (window: Window, order: [Id, number | null][]) =>
      window.hears('people', ({ people }) =>
        order.every(([id, hand]) => people.find((p) => p.id === id)?.hand === hand),
      );
    noor.send({ kind: 'hand', up: true });
    await hands(maren, [[noorId, 1]]);
    ana.send({ kind: 'hand', up: true });
    await hands(ana, [
      [noorId, 1],
      [anaId, 2],
    ]);
    maren.send({ kind: 'lower', who: noorId });
    await hands(noor, [
      [noorId, null],
      [anaId, 1],
    ]);
    ana.send({ kind: 'lower', who: 'all' });
    await ana.hearsProblem('tutor-only');
    maren.send({ kind: 'lower', who: 'all' });
    await maren.hears(
      'people',
      (m) => m.people.every(({ hand }) => hand === null) && maren.told.indexOf(m) > 10,
    );
  });

  it('are passed over where they come in a flood, and the others go on', async () => {
    const { maren, ana, anaId } = await house.lesson(false);
    const noor = await house.window(await house.student('Noor'));
    const noorId = (await noor.hears('welcome')).you;
    for (let i = 0; i < 100; i++) ana.send({ kind: 'hand', up: i % 2 === 0 });
    ana.send({ kind: 'ping', n: 7 });
    await ana.hears('pong');
    noor.send({ kind: 'hand', up: true });
    await maren.hears('people', ({ people }) =>
      people.some(({ id, hand }) => id === noorId && hand !== null),
    );
    const told = maren.told.flatMap((m) => (m.kind === 'people' ? [m.people] : []));
    const changes = told.filter(
      (people, i) =>
        people.find(({ id }) => id === anaId)?.hand !==
        told[i - 1]?.find(({ id }) => id === anaId)?.hand,
    );
    expect(changes.length).toBeLessThan(20);
  });

  it('are told to the tutor and to who gave them, and to nobody else', async () => {
    const { maren, ana, anaId } = await house.lesson(false);
    const noor = await house.window(await house.student('Noor'));
    ana.send({ kind: 'signal', signal: 'lost' });
    const told = (window: Window) =>
      window.hears('people', ({ people }) =>
        people.some((p) => p.id === anaId && p.signal === 'lost'),
      );
    await Promise.all([told(maren), told(ana)]);
    maren.send({ kind: 'signals.clear' });
    await ana.hears(
      'people',
      (m) =>
        m.people.every(({ signal }) => signal === null) &&
        ana.told.indexOf(m) >
          ana.told.findIndex(
            (t) => t.kind === 'people' && t.people.some(({ signal }) => signal === 'lost'),
          ),
    );
    const hers = noor.told.flatMap((m) => (m.kind === 'people' ? m.people : []));
    expect(hers.every(({ signal }) => signal === null)).toBeTrue();
  });
});
