import { House } from '../testing/harness.js';

describe('how long an answer holds', () => {
  let house: House;

  beforeAll(async () => {
    house = await House.open('freshness');
  });
  afterAll(() => house.close());

  /** Every address that can be asked for, with something that isn't there in its place for an id. */
  const addresses = (): string[] =>
    Object.entries(house.app.swagger().paths ?? {})
      .filter(([, methods]) => methods && 'get' in methods)
      .map(([path]) => path.replace(/^\/api/, '').replaceAll(/\{\w+\}/g, 'aaaaaaaaaaaa'));

  it('is said by every route, to the tutor and to a stranger', async () => {
    const all = addresses();
    expect(all.length).toBeGreaterThan(40);
    for (const who of [house.tutor, house.visitor()])
      for (const address of all) {
        const { headers, statusCode } = await who.get(address);
        const says = String(headers['cache-control']);
        if (statusCode >= 400) expect([address, says]).toEqual([address, 'no-store']);
        else expect([address, says]).toEqual([address, jasmine.stringMatching(/no-|max-age/)]);
      }
  });

  it('is no longer than this moment where a lesson is over, or nothing is there', async () => {
    const lesson = await house.openLesson();
    const student = await house.student('Ida');
    expect((await student.get('/lesson')).statusCode).toBe(200);
    await house.tutor.post(`/lessons/${lesson}/close`);
    for (const [address, status] of [
      ['/lesson', 410],
      ['/nothing', 404],
    ] as const) {
      const answer = await student.get(address);
      expect(answer.statusCode).toBe(status);
      expect(answer.headers['cache-control']).toBe('no-store');
    }
  });
});
