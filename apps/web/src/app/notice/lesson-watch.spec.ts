import type { Arrival, Person } from '@cuaderno/core';
import { LessonWatch } from './lesson-watch';

describe('the watch over a lesson', () => {
  let said: string[];
  let watch: LessonWatch;

  beforeEach(() => {
    said = [];
    watch = new LessonWatch((_kind, words) => said.push(words));
  });

  const at = (name: string, since = 1, state: Arrival['state'] = 'waiting'): Arrival => ({
    id: name.padEnd(12, '_'),
    name,
    nth: 1,
    state,
    since,
    known: null,
    guest: null,
  });
  const person = (name: string, here: boolean, role: Person['role'] = 'student'): Person => ({
    id: name.padEnd(12, '_'),
    name,
    nth: 1,
    role,
    trust: 'look',
    here,
    page: null,
  });

  it('tells of each who comes to the door once, and again when they knock again', () => {
    watch.arrivals([at('Ida')]);
    watch.arrivals([at('Ida'), at('Jonas'), at('Noor')]);
    watch.arrivals([at('Jonas')]);
    // The line broke, and she is back.
    watch.arrivals([at('Ida'), at('Jonas')]);
    watch.arrivals([at('Ida', 1, 'not-now')]);
    watch.arrivals([at('Ida', 2)]);
    expect(said).toEqual([
      'Ida is at the door',
      'Jonas and Noor are at the door',
      'Ida is at the door',
    ]);
  });

  it('tells of who left, not of who was away when the window was opened, nor of the tutor', () => {
    watch.people([person('Maren', true, 'tutor'), person('Ida', true), person('Jonas', false)]);
    watch.people([person('Maren', false, 'tutor'), person('Ida', false), person('Jonas', true)]);
    watch.people([person('Ida', false), person('Jonas', false)]);
    watch.over();
    watch.people([]);
    expect(said).toEqual(['Ida left, or lost the line', 'Jonas left, or lost the line']);
  });
});
