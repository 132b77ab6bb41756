import { colourOfPerson, initialsOf, nameOf } from '@cuaderno/core';
import type { Signer } from '@cuaderno/core';
import type { Attendance } from './shapes.js';

/** Who wrote in a lesson; in order of arrival, so that a colour is whose it is on the screen of the record. */
export function signersOf(people: readonly Attendance[]): Map<string, Signer> {
  return new Map(
    people.map((person, i) => [
      person.id,
      { name: nameOf(person), initials: initialsOf(person), colour: colourOfPerson(i) },
    ]),
  );
}
