import { colourOfPerson, initialsOf, nameOf } from '@cuaderno/core';
import type { Author } from '@cuaderno/core';
import type { BoardWriter } from '@cuaderno/contract/board-writer';
import type { Attendance } from '@cuaderno/contract/records';

/**
 * Who wrote in a lesson, in order of arrival, so that a colour is whose it is on the screen of the record; then those
 * who wrote on its board before, in other lessons or in a file that was brought.
 */
export function signersOf(
  people: readonly Attendance[],
  writers: readonly BoardWriter[] = [],
): Map<string, Author> {
  const there = new Set(people.map(({ id }) => id));
  const all = [...people, ...writers.filter(({ id }) => !there.has(id))];
  return new Map(
    all.map((person, i) => [
      person.id,
      { name: nameOf(person), initials: initialsOf(person), colour: colourOfPerson(i) },
    ]),
  );
}
