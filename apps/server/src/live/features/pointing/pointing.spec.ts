import { House } from '../../../testing/harness.js';

describe('what is shown on a page', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('showing');
  });
  afterEach(() => house.close());

  it('is a dot that moves, for the others, and goes with who pointed', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    maren.send({ kind: 'point', at: { page, x: 10, y: 20 } });
    expect((await ana.hears('point')).at).toEqual({ page, x: 10, y: 20 });
    maren.send({ kind: 'point', at: null });
    await ana.hears('point', ({ at }) => at === null);
    ana.send({ kind: 'point', at: { page, x: 1, y: 2 } });
    await maren.hears('point', ({ by, at }) => by === anaId && at?.x === 1);
    ana.socket.close();
    await maren.hears('point', ({ by, at }) => by === anaId && at === null);
    expect(maren.told.filter(({ kind }) => kind === 'point').length).toBe(2);
  });

  it('is an arrow that stays where it was put, for who comes late too', async () => {
    const { maren, page } = await house.lesson();
    maren.send({ kind: 'arrow', at: { page, x: 5, y: 6 } });
    await maren.hears('shown');
    const late = await house.window(await house.student('Noor'));
    const { shown } = await late.hears('shown');
    expect(shown.arrows.map(({ x, y }) => [x, y])).toEqual([[5, 6]]);
    maren.send({ kind: 'arrows.clear' });
    await late.hears('shown', (m) => m.shown.arrows.length === 0);
  });

  it('is the tutor’s lamp, and no student’s', async () => {
    const { maren, ana, page } = await house.lesson();
    const lamp = { page, shape: 'box', x: 1, y: 2, width: 30, height: 40 } as const;
    ana.send({ kind: 'lamp', lamp, final: true });
    maren.send({ kind: 'lamp', lamp: { ...lamp, x: 9 }, final: false });
    maren.send({ kind: 'lamp', lamp: null, final: true });
    await ana.hears('shown', ({ shown }) => shown.lamp === null);
    expect(ana.told.flatMap((m) => (m.kind === 'shown' ? [m.shown.lamp?.x] : []))).toEqual([
      9,
      undefined,
    ]);
  });

  it('takes no pointing from anyone who looks on', async () => {
    const { maren, ana, page } = await house.lesson(false);
    ana.send({ kind: 'point', at: { page, x: 1, y: 2 } });
    ana.send({ kind: 'arrow', at: { page, x: 1, y: 2 } });
    ana.send({ kind: 'hand', up: true });
    await maren.hears('people', ({ people }) => people.some(({ hand }) => hand === 1));
    expect(maren.told.some(({ kind }) => kind === 'point' || kind === 'shown')).toBeFalse();
  });

  it('is measured how long a word takes to a student; only the tutor is told', async () => {
    const { maren, ana, anaId } = await house.lesson();
    const view = {
      page: (await maren.wholeBoard()).pages.keys().next().value!,
      x: 0,
      y: 0,
      width: 300,
      height: 500,
    };
    ana.send({ kind: 'window', machine: 'phone', size: { width: 390, height: 844 }, view });
    await maren.hears('people', ({ people }) =>
      people.some(
        (p) =>
          p.id === anaId && p.roundTrip !== null && p.machine === 'phone' && p.view?.height === 500,
      ),
    );
    const told = ana.told.flatMap((m) => (m.kind === 'people' ? m.people : []));
    expect(
      told.every(({ roundTrip, machine }) => roundTrip === null && machine === null),
    ).toBeTrue();
  });
});
