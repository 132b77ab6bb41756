import { nameOf } from '@cuaderno/core';
import type { Attendance, Timeline } from '../api/shapes';
import { SIGNALS } from '../talk/signals';

/** Something that happened beside the pages, in words. */
export interface Happening {
  readonly at: number;
  readonly by: string;
  readonly kind: 'hand' | 'signal' | 'chat' | 'turn';
  readonly words: string;
}

/** What the timeline tells, as sentences about people, in the order of time. Hands that go down aren't told. */
export function happeningsOf(
  { chat, gestures, turns }: Timeline,
  people: readonly Attendance[],
  pageNumber: (page: string) => number | null,
): Happening[] {
  const names = new Map(people.map((person) => [person.id, nameOf(person)]));
  const name = (id: string): string => names.get(id) ?? 'Somebody';
  return [
    ...gestures.flatMap(({ by, what, at }): Happening[] => {
      if (what === 'hand') return [{ at, by, kind: 'hand', words: `${name(by)} raised a hand` }];
      const signal = SIGNALS.find((one) => one.signal === what);
      return signal
        ? [{ at, by, kind: 'signal', words: `${name(by)} signalled: ${signal.label}` }]
        : [];
    }),
    ...chat.map(({ by, to, text, at }): Happening => {
      const whom = to === 'all' ? '' : `, to ${to === 'tutor' ? 'the tutor' : name(to)}`;
      return { at, by, kind: 'chat', words: `${name(by)}${whom}: “${text}”` };
    }),
    ...turns.flatMap(({ by, page, at }): Happening[] => {
      const number = pageNumber(page);
      // A page that was taken out since has no number to be called by.
      return number === null
        ? []
        : [{ at, by, kind: 'turn', words: `${name(by)} turned to page ${number}` }];
    }),
  ].sort((a, b) => a.at - b.at);
}
