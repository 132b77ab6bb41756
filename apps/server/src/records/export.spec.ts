import { newId } from '@cuaderno/core';
import { House } from '../testing/harness.js';
import { chatText } from './chat-text.js';

describe('the chat as text', () => {
  const people = [
    { id: 'maren', name: 'Maren', nth: 1 },
    { id: 'ida', name: 'Ida', nth: 1 },
    { id: 'ida_2', name: 'Ida', nth: 2 },
  ];
  const record = { courseName: 'Tides', title: 'Ebb', openedAt: Date.UTC(2026, 9, 22, 15, 26) };

  it('says who wrote what to whom, by the clock of whoever reads it', () => {
    const said = (by: string, to: string, text: string, minute: number) => ({
      ...{ by, to, text },
      at: record.openedAt + minute * 60_000,
    });
    const chat = [
      said('ida', 'all', 'Is it ebb?', 1),
      said('ida_2', 'tutor', 'I am lost', 2),
      said('maren', 'ida_2', 'Look at\nthe table', 3),
    ];
    expect(chatText(record, chat, people, 'Europe/Oslo')).toBe(
      [
        'Tides: Ebb',
        'Thursday 22 October 2026, times in Europe/Oslo',
        '',
        '17:27  Ida: Is it ebb?',
        '17:28  Ida (2) to the tutor: I am lost',
        '17:29  Maren to Ida (2): Look at',
        '       the table',
        '',
      ].join('\n'),
    );
  });

  it('says that there was none', () => {
    expect(chatText(record, [], people, 'UTC')).toContain('Nobody wrote in the chat.');
  });
});

describe('what can be taken out as text', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('export-text');
  });
  afterEach(() => house.close());

  it('is the chat of a record, and who came to a course', async () => {
    const { maren, ana, lesson } = await house.lesson();
    ana.send({ kind: 'chat', id: newId(), to: 'all', text: 'High water, at last' });
    await maren.hears('chat');
    await house.tutor.post(`/lessons/${lesson}/close`);
    const chat = await house.tutor.get(`/records/${lesson}/chat.txt?zone=Europe/Oslo`);
    expect(chat.headers['content-type']).toBe('text/plain; charset=utf-8');
    expect(chat.body).toContain('Ana: High water, at last');
    const path = `/courses/${house.course.id}/attendance.csv`;
    const table = await house.tutor.get(`${path}?zone=Europe/Oslo`);
    expect(table.headers['content-type']).toContain('text/csv');
    expect(table.body).toMatch(
      /^\uFEFFCourse,Opened,Closed,Minutes,Student,Minutes there\r\nTides,\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\+0[12]:00,.*,0,Ana,0\r\n$/,
    );
    expect((await house.tutor.get(`${path}?zone=Middle/Earth`)).statusCode).toBe(400);
    const other = await house.otherTutor('Sunniva');
    for (const one of [path, `/records/${lesson}/chat.txt`])
      expect((await other.get(one)).statusCode).toBe(404);
  });
});
