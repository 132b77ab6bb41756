import { MAX_DESCRIPTION, packMessage } from '@cuaderno/core';
import type { ClientMessage, Id, MediaWindow } from '@cuaderno/core';
import { House } from '../../../testing/harness.js';
import type { Window } from '../../../testing/harness.js';

const sdp = (direction: string, more = ''): string =>
  `v=0\r\no=- 1 2 IN IP4 127.0.0.1\r\ns=-\r\nt=0 0\r\nm=audio 9 UDP/TLS/RTP/SAVPF 111\r\na=${direction}\r\n${more}`;

const offer = (to: Id, direction = 'sendrecv') =>
  ({
    kind: 'media.describe',
    to,
    description: { type: 'offer', sdp: sdp(direction) },
  }) as const satisfies ClientMessage;

const candidate = (to: Id) =>
  ({
    kind: 'media.candidate',
    to,
    candidate: {
      candidate: 'candidate:1 1 UDP 2130706431 10.0.1.1 8998 typ host',
      ...{ sdpMid: '0', sdpMLineIndex: 0, usernameFragment: null },
    },
  }) as const satisfies ClientMessage;

const isOn =
  (count: number) =>
  ({ windows }: { windows: readonly MediaWindow[] }): boolean =>
    windows.filter(({ microphone }) => microphone === 'on').length === count;

const windowOf = async (window: Window): Promise<Id> => (await window.hears('welcome')).window;

describe('voices', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('voices');
  });
  afterEach(() => house.close());

  it('are agreed on by two windows, and nobody else hears how they are reached', async () => {
    const { maren, ana, student } = await house.lesson();
    const tablet = await house.window(student);
    const [me, hers] = [await windowOf(maren), await windowOf(ana)];
    ana.send(offer(me));
    ana.send(candidate(me));
    expect(await maren.hears('media.describe')).toEqual({
      ...{ kind: 'media.describe', from: hers },
      description: { type: 'offer', sdp: sdp('sendrecv') },
    });
    expect((await maren.hears('media.candidate')).from).toBe(hers);
    // Whoever comes into the lesson is told what its windows need, and nothing of this.
    expect((await tablet.hears('media.begin')).servers).toEqual([]);
    const unheard = [tablet, ana].flatMap(({ told }) => told.map(({ kind }) => kind as string));
    expect(unheard).not.toContain('media.describe');
    expect(unheard).not.toContain('media.candidate');
  });

  it('reach no window of another lesson, none at the door and none that has gone', async () => {
    const { maren, ana, student, page } = await house.lesson();
    const tablet = await house.window(student);
    const gone = await windowOf(tablet);
    const isThere = (): boolean =>
      maren.told
        .flatMap((m) => (m.kind === 'media.windows' ? [m.windows] : []))
        .at(-1)!
        .some(({ id }) => id === gone);
    await maren.hears('media.windows', isThere);
    tablet.socket.close();
    await maren.hears('media.windows', () => !isThere());
    for (const to of [gone, page]) {
      ana.send(offer(to));
      ana.send(candidate(to));
    }
    // One that has just gone is nothing that anybody has to be told: windows come and go.
    ana.send({ kind: 'media.microphone', microphone: 'on' });
    await maren.hears('media.windows', isOn(1));
    expect(ana.told.some(({ kind }) => kind === 'problem')).toBeFalse();
    expect(maren.told.some(({ kind }) => kind === 'media.describe')).toBeFalse();
  });

  it('are no way to send what is no description, or too much, or too often', async () => {
    const { maren, ana } = await house.lesson();
    const me = await windowOf(maren);
    const wrong = (sdp: string): ClientMessage => ({
      ...{ kind: 'media.describe', to: me },
      description: { type: 'offer', sdp },
    });
    ana.send(wrong('hello'));
    await ana.hearsProblem('message-wrong-shape');
    ana.socket.send(packMessage(wrong('v'.repeat(MAX_DESCRIPTION + 2_000)) as never));
    await ana.hearsProblem('message-too-large');
    ana.socket.send(packMessage(wrong('v'.repeat(990_000)) as never));
    await ana.hearsTimes('problem', 3);
    for (let i = 0; i < 450; i++) ana.send(candidate(me));
    await ana.hearsProblem('media-too-many');
    expect(maren.told.filter(({ kind }) => kind === 'media.candidate').length).toBeLessThan(450);
    // The lesson goes on for both.
    maren.send({ kind: 'media.microphone', microphone: 'on' });
    await ana.hears('media.windows', isOn(1));
  });

  it('everyone knows whose microphone is on, also who comes late, until its window goes', async () => {
    const { maren, ana, student } = await house.lesson();
    const hers = await windowOf(ana);
    const { you } = await ana.hears('welcome');
    ana.send({ kind: 'media.microphone', microphone: 'on' });
    await maren.hears('media.windows', isOn(1));
    const late = await house.window(student);
    const { windows } = await late.hears('media.windows');
    expect(windows.length).toBe(3);
    expect(windows.find(({ id }) => id === hers)).toEqual({
      ...{ id: hers, person: you, microphone: 'on' },
    });
    ana.socket.close();
    await late.hears('media.windows', isOn(0));
  });

  it('are muted by who teaches, one, all, or all but who leads; nobody is switched on from outside', async () => {
    const { maren, ana } = await house.lesson();
    const noor = await house.window(await house.student('Noor'));
    const { you: anas } = await ana.hears('welcome');
    const { you: noors } = await noor.hears('welcome');
    const are = (of: Record<Id, string>): Promise<unknown> =>
      maren.hears('media.windows', ({ windows }) =>
        Object.entries(of).every(
          ([person, is]) => windows.find((m) => m.person === person)?.microphone === is,
        ),
      );
    for (const window of [maren, ana, noor])
      window.send({ kind: 'media.microphone', microphone: 'on' });
    await are({ [anas]: 'on', [noors]: 'on' });

    maren.send({ kind: 'media.mute', who: anas });
    await ana.hears('media.mute');
    await are({ [anas]: 'muted', [noors]: 'on' });
    expect(noor.told.some(({ kind }) => kind === 'media.mute')).toBeFalse();
    ana.send({ kind: 'media.microphone', microphone: 'on' });
    await are({ [anas]: 'on', [noors]: 'on' });

    maren.send({ kind: 'lead', who: anas });
    maren.send({ kind: 'media.mute', who: 'all-but-lead' });
    await are({ [anas]: 'on', [noors]: 'muted' });
    maren.send({ kind: 'media.mute', who: 'all' });
    await are({ [anas]: 'muted', [noors]: 'muted', [(await maren.hears('welcome')).you]: 'on' });

    maren.send({ kind: 'media.ask', who: anas });
    expect((await ana.hears('media.ask')).by).toBe((await maren.hears('welcome')).you);
    await are({ [anas]: 'muted' });
    ana.send({ kind: 'media.mute', who: noors });
    await ana.hearsProblem('tutor-only');
    ana.send({ kind: 'media.ask', who: noors });
    await ana.hearsTimes('problem', 2);
    expect(noor.told.some(({ kind }) => kind === 'media.ask')).toBeFalse();
  });

  it('of somebody whose line is away are muted, too: they are told as they come back', async () => {
    const { maren, ana, student } = await house.lesson();
    const { you: tutors } = await maren.hears('welcome');
    expect((await ana.hears('media.begin')).muted).toEqual({ times: 0, by: null });
    ana.send({ kind: 'media.microphone', microphone: 'on' });
    await maren.hears('media.windows', isOn(1));
    ana.socket.close();
    const isThere = (): boolean =>
      maren.told.flatMap((m) => (m.kind === 'media.windows' ? [m.windows] : [])).at(-1)!.length > 1;
    await maren.hears('media.windows', () => !isThere());
    maren.send({ kind: 'media.mute', who: 'all' });
    maren.send({ kind: 'media.mute', who: tutors });
    expect((await maren.hears('media.mute')).muted).toEqual({ times: 1, by: tutors });
    const again = await house.window(student);
    expect((await again.hears('media.begin')).muted).toEqual({ times: 1, by: tutors });
  });

  it('are sent to who watches, and not by them', async () => {
    const { maren } = await house.lesson();
    await house.setDoor('ask');
    const visitor = await house.student('Liv');
    await house.window(visitor, '/live/door', null);
    const { arrivals } = await maren.hears('door', (m) => m.arrivals.length === 1);
    maren.send({ kind: 'door', who: arrivals[0]!.id, word: 'in', as: 'watcher' });
    await maren.hears('people', ({ people }) => people.some(({ role }) => role === 'watcher'));
    const watcher = await house.window(visitor);
    const me = await windowOf(maren);
    watcher.send(offer(me));
    await watcher.hearsProblem('watches-only');
    watcher.send({ kind: 'media.microphone', microphone: 'on' });
    await watcher.hearsTimes('problem', 2);
    watcher.send(offer(me, 'recvonly'));
    expect((await maren.hears('media.describe')).from).toBe(await windowOf(watcher));
    expect(maren.told.filter(({ kind }) => kind === 'media.describe').length).toBe(1);
  });
});
