import { encodeStroke, operation } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';

const STUDENTS = 8;
const ROUNDS = 40;
/** How long all write before pens are taken in, and how often each sends a line, in ms. */
const WRITING = 150;
const EVERY = 4;
/** By when pens taken in must be known on every screen, in ms. */
const LIMIT = 150;

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/**
 * Time from the tutor's touch until every window of eight who write knows that pens are in (p95), against
 * 150 ms. Nothing that was sent after a window knew it may have been taken.
 */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const { id: board } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'Pens',
  });
  await server.post(`/boards/${board}/lesson`);
  const [tutor, welcome] = await BareWindow.open(
    `ws://127.0.0.1:${server.port}/live/boards/${board}`,
    server.cookie,
  );
  const page = welcome.board!.pages[0]!.id;
  const students = await Promise.all(
    Array.from({ length: STUDENTS }, async (_, i) => {
      const cookie = await server.join(`Student ${i}`);
      const [window, { you }] = await BareWindow.open(
        `ws://127.0.0.1:${server.port}/live/lesson`,
        cookie,
      );
      return { window, you };
    }),
  );
  const times: number[] = [];
  let takenAfter = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const knows = (trust: 'view' | 'write') =>
      Promise.all(
        students.map(async ({ window, you }) => {
          await window.hears('people', ({ people }) =>
            people.some((person) => person.id === you && person.trust === trust),
          );
          return performance.now();
        }),
      );
    const given = knows('write');
    tutor.say({ kind: 'trust', who: 'all', trust: 'write' });
    await given;
    /** Lines that were sent when it was known already that pens are in. */
    const late = new Set<Id>();
    const stops = students.map(({ window, you }, i) => {
      let isIn = false;
      const send = (): void => {
        const op = operation({ kind: 'ink.add', page, ink: encodeStroke(handwriting(i)) });
        if (isIn) late.add(op.id);
        window.say({ kind: 'ops', ops: [op] });
      };
      const timer = setInterval(send, EVERY);
      const stop = window.listen((message) => {
        if (message.kind === 'people')
          isIn ||= message.people.some(({ id, trust }) => id === you && trust === 'view');
        if (message.kind === 'confirmed')
          takenAfter += message.ids.filter((id) => late.has(id)).length;
      });
      return () => {
        clearInterval(timer);
        stop();
      };
    });
    await wait(WRITING);
    const taken = knows('view');
    const began = performance.now();
    tutor.say({ kind: 'trust', who: 'all', trust: 'view' });
    times.push(Math.max(...(await taken)) - began);
    // They go on trying for a while.
    await wait(WRITING);
    for (const stop of stops) stop();
    await wait(50);
  }
  for (const { window } of students) window.close();
  tutor.close();
  await server.close();
  console.log(
    `pens: p50 ${percentile(times, 0.5).toFixed(1)} ms, p95 ${percentile(times, 0.95).toFixed(1)} ms; ` +
      `${takenAfter} lines taken after a window knew`,
  );
  return result('pens', 'ms', percentile(times, 0.95), LIMIT, 1, { also: takenAfter === 0 });
}
