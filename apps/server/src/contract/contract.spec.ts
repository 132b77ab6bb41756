import { addressOf } from '@cuaderno/contract/route';
import type { Route } from '@cuaderno/contract/route';
import { ROUTES } from '@cuaderno/contract/routes/index';
import { newId } from '@cuaderno/core';
import { House } from '../testing/harness.js';
import type { Visitor } from '../testing/harness.js';

/** An address of that route where nothing is. */
function nowhere({ path }: Route): string {
  const params = Object.fromEntries(
    [...path.matchAll(/:(\w+)/g)].map(([, name]) => [
      name,
      name === 'hash' ? '0'.repeat(64) : ['page', 'number'].includes(name!) ? 1 : newId(),
    ]),
  );
  return addressOf({ path }, params, { zone: 'Europe/Oslo' });
}

describe('the contract', () => {
  let house: House;

  beforeAll(async () => {
    house = await House.open('contract', { demo: false });
  });
  afterAll(() => house.close());

  const ask = (who: Visitor, spec: Route) =>
    spec.method === 'GET' ? who.get(nowhere(spec)) : who.post(nowhere(spec), {});

  it('is kept: every route of it is there', () => {
    const missing = ROUTES.filter(
      ({ method, path }) => !house.app.hasRoute({ method, url: `/api${path}` }),
    );
    expect(missing.map(({ path }) => path)).toEqual(['/demo/sign-in']);
  });

  it('says each thing once', () => {
    const said = ROUTES.map(({ method, path }) => `${method} ${path}`);
    expect(new Set(said).size).toBe(said.length);
  });

  for (const [who, code] of [
    ['tutor', 'not-signed-in'],
    ['student', 'pass-expired'],
    ['arrival', 'pass-expired'],
  ] as const)
    it(`lets nobody through who isn’t a ${who}, before anything is read`, async () => {
      const nobody = house.visitor();
      for (const spec of ROUTES.filter((one) => one.who === who)) {
        const answer = await ask(nobody, spec);
        expect([answer.statusCode, answer.json<{ type: string }>().type])
          .withContext(`${spec.method} ${spec.path}`)
          .toEqual([401, `urn:cuaderno:${code}`]);
      }
    });
});
