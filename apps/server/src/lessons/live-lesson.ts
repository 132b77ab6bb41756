import type { Actor, Id, Person, Role, Trust } from '@cuaderno/core';

export interface Present {
  readonly id: Id;
  readonly name: string;
  readonly nth: number;
  readonly role: Role;
  trust: Trust;
  /** Windows connected just now. */
  windows: number;
  page: Id | null;
}

/** An open lesson: who is in it, and who holds a pen. Kept in memory; its changes go to disk too. */
export class LiveLesson {
  private readonly people = new Map<Id, Present>();

  constructor(
    readonly id: Id,
    readonly course: Id,
    readonly board: Id,
    readonly openedAt: number,
    readonly tutor: Id,
  ) {}

  add(person: { id: Id; name: string; nth: number; role: Role; trust: Trust }): void {
    this.people.set(person.id, { ...person, windows: 0, page: null });
  }

  person(id: Id): Present | undefined {
    return this.people.get(id);
  }

  students(): Present[] {
    return [...this.people.values()].filter(({ role }) => role === 'student');
  }

  /** How many of this name came before, plus one. */
  nextNth(name: string): number {
    const same = name.toLocaleLowerCase();
    const taken = [...this.people.values()].filter((p) => p.name.toLocaleLowerCase() === same);
    return Math.max(0, ...taken.map(({ nth }) => nth)) + 1;
  }

  actor(id: Id): Actor {
    const person = this.people.get(id);
    return person
      ? { id, role: person.role, trust: person.trust }
      : { id, role: 'student', trust: 'look' };
  }

  get tutorPage(): Id | null {
    return this.people.get(this.tutor)?.page ?? null;
  }

  /** Everyone, in order of arrival. Where students look is the tutor's to know. */
  list(viewer: Role): Person[] {
    return [...this.people.values()].map(({ id, name, nth, role, trust, windows, page }) => ({
      id,
      name,
      nth,
      role,
      trust,
      here: windows > 0,
      page: viewer === 'tutor' ? page : null,
    }));
  }
}
