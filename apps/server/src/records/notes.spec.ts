import { House } from '../testing/harness.js';
import type { Note } from '@cuaderno/contract/records';

describe('notes of a lesson', () => {
  let house: House;
  let lesson: string;

  beforeEach(async () => {
    house = await House.open('notes');
    lesson = await house.openLesson();
  });
  afterEach(() => house.close());

  const write = (text: string, follows: string | null = null, kind = 'summary') =>
    house.tutor.post(`/lessons/${lesson}/notes`, { kind, text, follows });
  const all = async (): Promise<Note[]> =>
    (await house.tutor.get(`/lessons/${lesson}/notes`)).json<{ notes: Note[] }>().notes;

  it('are written while it goes on, and amended after it is closed; every version stays', async () => {
    const first = (await write('We read the tide table.')).json<Note>();
    await write('Draw Friday’s curve.', null, 'until');
    await house.tutor.post(`/lessons/${lesson}/close`);
    const second = (await write('We read the tide table for Solvik.', first.id)).json<Note>();
    expect(second.follows).toBe(first.id);
    expect((await all()).map(({ kind, text }) => [kind, text])).toEqual([
      ['summary', 'We read the tide table.'],
      ['until', 'Draw Friday’s curve.'],
      ['summary', 'We read the tide table for Solvik.'],
    ]);
  });

  it('are not overwritten by who didn’t see the newest version', async () => {
    const first = (await write('One')).json<Note>();
    const answers = await Promise.all([write('Two', first.id), write('Three', first.id)]);
    expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([201, 409]);
    const late = await write('Four', null);
    expect([late.statusCode, late.json<{ type: string }>().type]).toEqual([
      409,
      'urn:cuaderno:note-amended',
    ]);
    expect((await all()).length).toBe(2);
  });

  it('that say the same are no new version', async () => {
    const first = (await write('Neap tides')).json<Note>();
    await write('  Neap tides ', first.id);
    expect((await all()).length).toBe(1);
    const emptied = (await write('', first.id)).json<Note>();
    expect(emptied.text).toBe('');
    expect((await all()).length).toBe(2);
  });

  it('are the tutor’s whose lesson it is', async () => {
    const other = await house.otherTutor('Sunniva');
    const path = `/lessons/${lesson}/notes`;
    const body = { kind: 'summary', text: 'Mine', follows: null };
    expect((await other.get(path)).statusCode).toBe(404);
    expect((await other.post(path, body)).statusCode).toBe(404);
    expect((await house.visitor().get(path)).statusCode).toBe(401);
    const student = await house.student('Ana');
    expect((await student.post(path, body)).statusCode).toBe(401);
  });
});
