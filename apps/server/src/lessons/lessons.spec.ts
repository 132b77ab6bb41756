import { newId } from '@cuaderno/core';
import { House } from '../testing/harness.js';
import { PASS_MS, PassOffice } from './pass.js';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

describe('passes', () => {
  it('are good for one arrival in one lesson, for a while, and only from this office', async () => {
    const office = await PassOffice.open(mkdtempSync(join(tmpdir(), 'cuaderno-pass-')));
    const other = await PassOffice.open(mkdtempSync(join(tmpdir(), 'cuaderno-pass-')));
    const token = office.issue('lesson', 'ana', 1000);
    expect(office.read(token, 1000)).toEqual(
      jasmine.objectContaining({ lesson: 'lesson', arrival: 'ana' }),
    );
    expect(office.read(token, 1001 + PASS_MS)).toBe('expired');
    expect(other.read(token, 1000)).toBeNull();
    const forged = Buffer.from(
      JSON.stringify({ lesson: 'lesson', arrival: 'eve', until: 9e15 }),
    ).toString('base64url');
    for (const bad of [undefined, '', 'x', 'x.y', `${forged}.${token.split('.')[1]!}`])
      expect(office.read(bad)).toBeNull();
  });

  it('stay good when the office opens again', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'cuaderno-pass-'));
    const token = (await PassOffice.open(folder)).issue('l', 'a');
    expect((await PassOffice.open(folder)).read(token)).toEqual(
      jasmine.objectContaining({ lesson: 'l' }),
    );
  });
});

describe('going into a lesson', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('lessons');
  });
  afterEach(() => house.close());

  const look = (by: object) => house.visitor().post('/join/find', by);

  it('shows whose it is, and lets in only while it is open', async () => {
    const by = { link: house.course.linkToken };
    expect((await look(by)).json()).toEqual({
      course: 'Tides',
      tutor: 'Maren',
      open: false,
      nextAt: null,
      name: null,
    });
    const early = await house.visitor().post('/join', { by, name: 'Ana' });
    expect(early.json<{ type: string }>().type).toBe('urn:cuaderno:lesson-not-open');
    const lesson = await house.openLesson();
    const ana = await house.student('Ana');
    expect((await ana.get('/lesson')).json()).toEqual(
      jasmine.objectContaining({ course: 'Tides', name: 'Ana', title: 'Ebb' }),
    );
    await house.tutor.post(`/lessons/${lesson}/close`);
    expect((await ana.get('/lesson')).statusCode).toBe(410);
    expect((await house.visitor().post('/join', { by, name: 'Ana' })).statusCode).toBe(409);
  });

  it('works with the code as it was heard', async () => {
    const { joinCode } = house.course;
    const typed = `${joinCode.slice(0, 3).toLowerCase()} ${joinCode.slice(3)}`;
    expect((await look({ code: typed })).statusCode).toBe(200);
  });

  it('knows a browser that is in already', async () => {
    await house.openLesson();
    const ana = await house.student('Ana');
    const by = { link: house.course.linkToken };
    expect((await ana.post('/join/find', by)).json<{ name: string }>().name).toBe('Ana');
    const before = (await house.window(ana)).hears('welcome');
    await ana.post('/join', { by, name: 'Ana' });
    expect((await (await house.window(ana)).hears('welcome')).you).toBe((await before).you);
  });

  it('slows down anyone who guesses codes', async () => {
    const codes = Array.from({ length: 16 }, (_, i) => ({ code: `AAAAA${10 + i}` }));
    const answers: number[] = [];
    for (const code of codes) answers.push((await look(code)).statusCode);
    expect(answers.slice(0, 15)).toEqual(Array<number>(15).fill(404));
    expect(answers[15]).toBe(429);
    expect((await look({ code: house.course.joinCode })).statusCode).toBe(429);
  });

  it('asks for a name that is one', async () => {
    await house.openLesson();
    const by = { link: house.course.linkToken };
    for (const [name, words] of [
      ['', 'first name'],
      ['x'.repeat(10_000), 'too long'],
      ['\u202e', 'first name'],
    ] as const) {
      const response = await house.visitor().post('/join', { by, name });
      expect(response.statusCode).toBe(400);
      expect(response.json<{ detail: string }>().detail).toContain(words);
    }
  });

  it('keeps names of any script, and markup as letters', async () => {
    await house.openLesson();
    for (const name of ['Ольга', '<script>alert(1)</script>', 'अनिता', '👩‍🚀 Ida'])
      expect((await (await house.student(name)).get('/lesson')).json<{ name: string }>().name).toBe(
        name,
      );
  });

  it('is one lesson at a time in a course, closed once', async () => {
    const lesson = await house.openLesson();
    expect((await house.tutor.post(`/boards/${house.board}/lesson`)).statusCode).toBe(409);
    expect((await house.tutor.post(`/lessons/${lesson}/close`)).statusCode).toBe(200);
    expect((await house.tutor.post(`/lessons/${lesson}/close`)).statusCode).toBe(410);
    expect((await house.tutor.post(`/lessons/${newId()}/close`)).statusCode).toBe(410);
  });

  it('is the tutor’s alone to open and close', async () => {
    const lesson = await house.openLesson();
    const ana = await house.student('Ana');
    expect((await ana.post(`/lessons/${lesson}/close`)).statusCode).toBe(401);
    expect((await ana.get('/today')).statusCode).toBe(401);
  });
});
