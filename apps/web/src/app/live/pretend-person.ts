import type { Person } from '@cuaderno/core/features';

/** Somebody in a lesson, as the server tells of them, for specs: a student who is there and watches. */
export function pretendPerson(change: Partial<Person> & Pick<Person, 'id' | 'name'>): Person {
  return {
    nameOrdinal: 1,
    role: 'student',
    trust: 'view',
    here: true,
    board: null,
    page: null,
    rules: {},
    hand: null,
    signal: null,
    machine: null,
    roundTrip: null,
    view: null,
    size: null,
    ...change,
  };
}
