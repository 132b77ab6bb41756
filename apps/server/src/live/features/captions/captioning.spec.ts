import type { FoundRecord, RecordOpened } from '@cuaderno/contract/records';
import type { DeletionReport, StudentData } from '@cuaderno/contract/student-data';
import { MAX_CAPTION, newId } from '@cuaderno/core';
import type { Id, RecordTimeline } from '@cuaderno/core';
import { House } from '../../../testing/harness.js';
import type { Window } from '../../../testing/harness.js';

describe('typed captions', () => {
  let house: House;
  beforeEach(async () => {
    house = await House.open('captions');
  });
  afterEach(() => house.close());

  const type = (window: Window, text: string, id = newId()): Id => {
    window.send({ kind: 'caption', id, text });
    return id;
  };
  const reads = (window: Window, id: Id, text: string) =>
    window.hears('caption', ({ line }) => line.id === id && line.text === text);
  const isWriter = (window: Window, who: Id | null) =>
    window.hears('captions', ({ writer }) => writer === who);

  it('are typed by whom the tutor names, and read by all, letter by letter and line by line', async () => {
    const { maren, ana, anaId } = await house.lesson(false);
    const noor = await house.window(await house.student('Noor'));
    await isWriter(noor, null);
    type(ana, 'Not yet');
    await ana.hearsProblem('captions-not-yours');
    // Naming is the tutor's.
    ana.send({ kind: 'captions.writer', who: anaId });
    await ana.hearsProblem('tutor-only');
    maren.send({ kind: 'captions.writer', who: anaId });
    await Promise.all([maren, ana, noor].map((window) => isWriter(window, anaId)));
    ana.send({ kind: 'caption.typing', text: 'Low wat' });
    await noor.hears('caption.typing', ({ text }) => text === 'Low wat');
    const id = type(ana, ' Low  water\nis at ten. ');
    await Promise.all([maren, ana, noor].map((w) => reads(w, id, 'Low water is at ten.')));
    const { line } = await reads(noor, id, 'Low water is at ten.');
    expect(line.by).toBe(anaId);
    expect(line.from).toBeLessThanOrEqual(line.at);
    // Corrected, it is one line still; sent once more after a break, too.
    type(ana, 'Low water is at eleven.', id);
    await reads(noor, id, 'Low water is at eleven.');
    type(ana, 'Low water is at eleven.', id);
    type(ana, 'x'.repeat(MAX_CAPTION + 1));
    await ana.hearsProblem('caption-not-kept');
    const late = await house.window(await house.student('Jonas'));
    const { lines } = await isWriter(late, anaId);
    expect(lines.map(({ text }) => text)).toEqual(['Low water is at eleven.']);
    // Nobody else's line is changed by knowing its id.
    maren.send({ kind: 'captions.writer', who: (await noor.hears('welcome')).you });
    await isWriter(noor, (await noor.hears('welcome')).you);
    type(noor, 'Stolen', id);
    await noor.hearsProblem('caption-not-kept');
    type(ana, 'I did this before');
    expect(
      ana.told.some((m) => m.kind === 'caption' && m.line.text === 'I did this before'),
    ).toBeFalse();
  });

  it('end when nobody is named, and when who types them is sent out', async () => {
    const { maren, ana, anaId } = await house.lesson(false);
    maren.send({ kind: 'captions.writer', who: anaId });
    await isWriter(ana, anaId);
    maren.send({ kind: 'captions.writer', who: null });
    await ana.hears('captions', (m) => m.writer === null && ana.told.indexOf(m) > 3);
    maren.send({ kind: 'captions.writer', who: anaId });
    maren.send({ kind: 'door', who: anaId, word: 'out' });
    await ana.ends();
    const noor = await house.window(await house.student('Noor'));
    expect((await noor.hears('captions')).writer).toBeNull();
  });

  it('are there after a restart, with who types them', async () => {
    const { maren, ana, anaId, student } = await house.lesson(false);
    maren.send({ kind: 'captions.writer', who: anaId });
    await isWriter(ana, anaId);
    await reads(maren, type(ana, 'The tide turns.'), 'The tide turns.');
    await house.restart();
    const back = await house.window(student.movedTo(house.app));
    const { writer, lines } = await back.hears('captions');
    expect([writer, lines.map(({ text }) => text)]).toEqual([anaId, ['The tide turns.']]);
    await reads(back, type(back, 'It goes out now.'), 'It goes out now.');
  });

  it('lie in the record with their times, are found, saved as WebVTT and in the archive, and go with a student’s data', async () => {
    const { maren, ana, anaId, lesson } = await house.lesson(false);
    maren.send({ kind: 'captions.writer', who: anaId });
    await isWriter(ana, anaId);
    ana.send({ kind: 'caption.typing', text: 'The ebb' });
    await maren.hears('caption.typing');
    await reads(maren, type(ana, 'The ebb is quixotic & < ten.'), 'The ebb is quixotic & < ten.');
    await reads(maren, type(ana, 'Well done, Ana!'), 'Well done, Ana!');
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.app.indexing.settled();

    const { record, said } = (await house.tutor.get(`/records/${lesson}`)).json<RecordOpened>();
    expect(said).toEqual(['captions']);
    const { captions } = (
      await house.tutor.get(`/records/${lesson}/timeline`)
    ).json<RecordTimeline>();
    expect(captions.map(({ text }) => text)).toEqual([
      'The ebb is quixotic & < ten.',
      'Well done, Ana!',
    ]);
    for (const { from, at } of captions) {
      expect(from).toBeGreaterThanOrEqual(record.openedAt);
      expect(from).toBeLessThanOrEqual(at);
      expect(at).toBeLessThanOrEqual(record.closedAt);
    }
    const find = async (words: string) =>
      (await house.tutor.get(`/records?words=${words}`)).json<{ found: FoundRecord[] }>().found;
    expect((await find('quixotic'))[0]?.places.map(({ source }) => source)).toEqual(['captions']);
    const vtt = await house.tutor.get(`/records/${lesson}/said/captions.vtt?zone=Europe/Oslo`);
    expect(vtt.headers['content-type']).toBe('text/vtt; charset=utf-8');
    expect(vtt.body).toContain('The ebb is quixotic &amp; &lt; ten.');
    const other = house.visitor();
    expect((await other.get(`/records/${lesson}/said/captions.vtt`)).statusCode).toBe(401);
    const archive = await house.tutor.get(`/courses/${house.course.id}/archive.zip?zone=UTC`);
    expect(archive.rawPayload.includes(Buffer.from('captions.vtt'))).toBeTrue();
    const pdf = await house.tutor.get(`/records/${lesson}/pdf?with=captions`);
    expect(pdf.headers['content-type']).toBe('application/pdf');

    const { seats } = (
      await house.tutor.post('/students/data', { name: 'Ana' })
    ).json<StudentData>();
    expect(seats.map((seat) => seat.said)).toEqual([{ chat: 0, captions: 2 }]);
    const gone = await house.tutor.post('/students/delete', {
      ...{ name: 'Ana', ink: 'take-out', named: true },
      people: seats.map(({ person }) => person),
    });
    const { report } = gone.json<{ report: DeletionReport }>();
    expect(report.said).toEqual({ chat: 0, captions: 2 });
    await house.app.indexing.settled();
    expect(await find('quixotic')).toEqual([]);
    const after = await house.tutor.get(`/records/${lesson}/timeline`);
    expect(after.json<RecordTimeline>().captions).toEqual([]);
  });
});
