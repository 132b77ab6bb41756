import type { Arrival, ChatLine, Person } from '@cuaderno/core/features';
import { pretendPerson } from '../../live/pretend-person';
import { LessonWatch } from './lesson-watch';

describe('the watch over a lesson', () => {
  let said: string[];
  let settled: string[];
  let watch: LessonWatch;

  beforeEach(() => {
    said = [];
    settled = [];
    watch = new LessonWatch(
      (_kind, words) => said.push(words),
      (kind) => settled.push(kind),
    );
  });

  const at = (name: string, since = 1, state: Arrival['state'] = 'waiting'): Arrival => ({
    id: name.padEnd(12, '_'),
    name,
    nameOrdinal: 1,
    state,
    since,
    known: null,
    guest: null,
    role: 'student',
  });
  const person = (name: string, here: boolean, role: Person['role'] = 'student'): Person =>
    pretendPerson({ id: name.padEnd(12, '_'), name, role, here });

  it('announces each who comes to the door once, and again when they knock again', () => {
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

  it('says when nobody is at the door any more, nor has a hand up', () => {
    watch.arrivals([at('Ida'), at('Jonas')]);
    watch.arrivals([at('Jonas')]);
    expect(settled).toEqual([]);
    watch.arrivals([at('Jonas', 1, 'not-now')]);
    expect(settled).toEqual(['door']);
    watch.people([{ ...person('Ida', true), hand: 1 }]);
    expect(settled).toEqual(['door']);
    watch.people([person('Ida', true)]);
    expect(settled).toEqual(['door', 'hand']);
  });

  it('announces who left, but not who was away when the window was opened, nor the tutor', () => {
    watch.people([person('Maren', true, 'tutor'), person('Ida', true), person('Jonas', false)]);
    watch.people([person('Maren', false, 'tutor'), person('Ida', false), person('Jonas', true)]);
    watch.people([person('Ida', false), person('Jonas', false)]);
    watch.over();
    watch.people([]);
    expect(said).toEqual(['Ida left, or lost the line', 'Jonas left, or lost the line']);
  });

  it('announces as well that one who helps or watches left', () => {
    watch.people([person('Tove', true, 'helper'), person('Ebba', true, 'watcher')]);
    watch.people([person('Tove', false, 'helper'), person('Ebba', false, 'watcher')]);
    expect(said).toEqual(['Tove and Ebba left, or lost the line']);
  });

  it('announces a hand when it goes up, once', () => {
    const raised = (name: string, hand: number): Person => ({ ...person(name, true), hand });
    watch.people([person('Ida', true), person('Jonas', true)]);
    watch.people([raised('Ida', 1), person('Jonas', true)]);
    watch.people([raised('Ida', 1), raised('Jonas', 2)]);
    watch.people([person('Ida', true), raised('Jonas', 1)]);
    watch.people([raised('Ida', 2), raised('Jonas', 1)]);
    expect(said).toEqual(['Ida raised a hand', 'Jonas raised a hand', 'Ida raised a hand']);
  });

  it('announces messages that come, not those that were there or are one’s own', () => {
    const line = (id: string, by: string, text: string): ChatLine => ({
      id,
      by,
      text,
      to: 'all',
      at: 1,
    });
    const ida = person('Ida', true);
    const first = line('1', ida.id, 'Hello');
    watch.chat([first], [ida], 'me');
    watch.chat([first, line('2', 'me', 'Hello Ida')], [ida], 'me');
    watch.chat([first, line('3', ida.id, 'Where is Orion?')], [ida], 'me');
    expect(said).toEqual(['Ida: Where is Orion?']);
  });
});
