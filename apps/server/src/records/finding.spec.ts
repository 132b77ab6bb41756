import { hasAll, newId, operation, tokensOf, wantedOf } from '@cuaderno/core';
import fc from 'fast-check';
import { House } from '../testing/harness.js';
import type { Found, RecordInfo } from '@cuaderno/contract/records';
import { wordRow } from './words.js';

interface Answer {
  readonly found: { record: RecordInfo; places: Found[] }[];
  readonly more: boolean;
}

describe('finding records', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('finding');
  });
  afterEach(() => house.close());

  const find = async (wish: Record<string, string> = {}): Promise<Answer> =>
    (await house.tutor.get(`/records?${new URLSearchParams(wish)}`)).json();
  const places = async (words: string): Promise<string[]> =>
    (await find({ words })).found.flatMap((one) =>
      one.places.map(({ source, number, found }) => `${source} ${number ?? '-'}: ${found}`),
    );

  /** A closed lesson in which something was written in each place. */
  async function closed(): Promise<string> {
    const { maren, ana, page, lesson } = await house.lesson();
    const name = operation({
      ...{ kind: 'page.change', page, to: { name: 'Spring tides' } },
      from: { name: '' },
    });
    maren.send({ kind: 'ops', ops: [name] });
    await maren.hears('confirmed');
    ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'Is the ebb late in Solvík?' });
    await maren.hears('chat');
    for (const [kind, text] of [
      ['summary', 'We compared spring and neap.'],
      ['until', 'Watch the moon on Friday.'],
    ] as const)
      await house.tutor.post(`/lessons/${lesson}/notes`, { kind, text, follows: null });
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.app.indexing.settled();
    return lesson;
  }

  it('looks at pages, chat and notes, by beginnings of words, without case and accents', async () => {
    const lesson = await closed();
    expect(await places('spring')).toEqual(['page 1: Spring', 'summary -: spring']);
    expect(await places('SOLVIK ebb')).toEqual(['chat -: ebb']);
    expect(await places('fri moon')).toEqual(['until -: moon']);
    expect(await places('ring')).toEqual([]);
    expect(await places('spring moon')).toEqual([]);
    const { found } = await find({ words: 'moon' });
    expect(found.map(({ record }) => record.lesson)).toEqual([lesson]);
  });

  it('finds a note as it is now, and not as it was', async () => {
    const lesson = await closed();
    const { notes } = (await house.tutor.get(`/lessons/${lesson}/notes`)).json<{
      notes: { id: string; kind: string }[];
    }>();
    const until = notes.find(({ kind }) => kind === 'until')!;
    await house.tutor.post(`/lessons/${lesson}/notes`, {
      ...{ kind: 'until', text: 'Watch the sun.', follows: until.id },
    });
    expect(await places('moon')).toEqual([]);
    expect(await places('sun')).toEqual(['until -: sun']);
  });

  it('chooses by course, student and date', async () => {
    const lesson = await closed();
    const all = async (wish: Record<string, string>) =>
      (await find(wish)).found.map(({ record }) => record.lesson);
    const { found } = await find();
    const students = async (who = house.tutor) => (await who.get('/students')).json<object>();
    expect(await students()).toEqual({ students: ['Ana'] });
    expect(found[0]!.record.people).toEqual(['Ana']);
    const now = Date.now();
    const fit: Record<string, string>[] = [
      {},
      { course: house.course.id },
      { student: 'Ana' },
      { from: String(now - 60_000), until: String(now + 60_000) },
    ];
    for (const wish of fit)
      expect(await all(wish))
        .withContext(JSON.stringify(wish))
        .toEqual([lesson]);
    const unfit: Record<string, string>[] = [
      { course: newId() },
      { student: 'Ida' },
      { until: String(now - 60_000) },
      { words: '…' },
    ];
    for (const wish of unfit)
      expect(await all(wish))
        .withContext(JSON.stringify(wish))
        .toEqual([]);
  });

  it('takes whatever is typed as words, never as a command', async () => {
    await closed();
    for (const words of ['"', 'ebb*', 'NOT', '(moon', "' OR 1=1 --", 'tokens:moon', '^spring'])
      expect((await house.tutor.get(`/records?words=${encodeURIComponent(words)}`)).statusCode)
        .withContext(words)
        .toBe(200);
  });

  it('shows nobody the records of another', async () => {
    await closed();
    const other = await house.otherTutor('Sunniva');
    const answer = (await other.get('/records?words=spring')).json<Answer>();
    expect(answer.found).toEqual([]);
    expect((await other.get('/students')).json<object>()).toEqual({ students: [] });
    expect((await house.visitor().get('/records')).statusCode).toBe(401);
  });

  it('finds what going through all of it would find', async () => {
    const lesson = await closed();
    const word = fc.constantFrom(
      'ebb',
      'ebbs',
      'Flood',
      'flò',
      '潮汐表',
      '汐',
      '12-14',
      'neap.',
      'l’eau',
      'ÿ',
    );
    const text = fc.array(word, { minLength: 1, maxLength: 6 }).map((list) => list.join(' '));
    await fc.assert(
      fc.asyncProperty(
        fc.array(text, { minLength: 1, maxLength: 8 }),
        text,
        async (texts, query) => {
          const rows = texts.map((said, i) =>
            wordRow({ lesson, source: 'chat', page: null, number: i, said }),
          );
          await house.app.db.raw([{ sql: 'DELETE FROM record_words', params: [] }, ...rows]);
          const wanted = wantedOf(query);
          const there = texts.some((said) => hasAll(tokensOf(said), wanted));
          expect((await find({ words: query })).found.length).toBe(there ? 1 : 0);
        },
      ),
      { numRuns: 60 },
    );
  });
});
