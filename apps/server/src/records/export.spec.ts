import { newId } from '@cuaderno/core';
import { House } from '../testing/harness.js';

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
    const chat = await house.tutor.get(`/records/${lesson}/said/chat.txt?zone=Europe/Oslo`);
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
    for (const one of [path, `/records/${lesson}/said/chat.txt`])
      expect((await other.get(one)).statusCode).toBe(404);
  });
});
