import type { Arrival, Id, Person } from '@cuaderno/core';
import type { NoticeKind } from './notices';

/** Tells of what has changed in who is at the door and who is here, once for each time. */
export class LessonWatch {
  private knocking = new Map<Id, number>();
  private here: ReadonlySet<Id> | null = null;

  constructor(private readonly tell: (kind: NoticeKind, words: string) => void) {}

  arrivals(list: readonly Arrival[]): void {
    const now = new Map(
      list.filter(({ state }) => state === 'waiting').map(({ id, since }) => [id, since]),
    );
    // Whoever only lost the line and is back isn't told of again; whoever knocks once more is.
    const fresh = list.filter(({ id }) => now.has(id) && this.knocking.get(id) !== now.get(id));
    for (const [id, since] of now) this.knocking.set(id, since);
    if (fresh.length === 0) return;
    const names = inWords(fresh.map(({ name }) => name));
    this.tell('door', `${names} ${fresh.length === 1 ? 'is' : 'are'} at the door`);
  }

  people(list: readonly Person[]): void {
    const students = list.filter(({ role }) => role === 'student');
    const now = new Set(students.filter(({ here }) => here).map(({ id }) => id));
    const left = students.filter(({ id }) => this.here?.has(id) && !now.has(id));
    this.here = now;
    if (left.length > 0)
      this.tell('left', `${inWords(left.map(({ name }) => name))} left, or lost the line`);
  }

  /** The lesson is over: nobody is missed. */
  over(): void {
    this.knocking = new Map();
    this.here = null;
  }
}

function inWords(names: readonly string[]): string {
  return names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
}
