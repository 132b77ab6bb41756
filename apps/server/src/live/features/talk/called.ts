import type { Attendance } from '@cuaderno/contract/records';
import { nameOf } from '@cuaderno/core';

/** How people of a lesson are called in its chat, and whom a message was for; to all, that isn't said. */
export function calledIn(people: readonly Attendance[]): {
  readonly name: (id: string) => string;
  readonly whom: (to: string) => string;
} {
  const names = new Map<string, string>(people.map((person) => [person.id, nameOf(person)]));
  const name = (id: string): string => names.get(id) ?? 'somebody';
  const whom = (to: string): string =>
    to === 'all' ? '' : to === 'tutor' ? ' to the tutor' : ` to ${name(to)}`;
  return { name, whom };
}
