import { afterWord } from '@cuaderno/core';
import type {
  Actor,
  Arrival,
  DoorState,
  DoorWord,
  Id,
  Person,
  Role,
  Trust,
  View,
} from '@cuaderno/core';

/** Someone who came to a lesson, whether they are in it or not. */
export interface Present {
  readonly id: Id;
  readonly name: string;
  readonly nth: number;
  readonly role: Role;
  /** SHA-256 of what their browser keeps; a tutor has none. */
  readonly device: string | null;
  /** Whom the link was made for that they came by, if it was a guest's. */
  readonly guest: string | null;
  trust: Trust;
  door: DoorState;
  /** When they came to the door, last, in ms since 1970. */
  since: number;
  /** The name under which this browser was let into the course before, if it was. */
  known: string | null;
  /** Windows connected just now, in the lesson and at its door. */
  windows: number;
  doorWindows: number;
  page: Id | null;
}

/** What is known of someone when they come. */
export type Comer = Pick<
  Present,
  'id' | 'name' | 'nth' | 'role' | 'trust' | 'door' | 'device' | 'guest'
>;

/** An open lesson: who is in it, and who holds a pen. Kept in memory; its changes go to disk too. */
export class LiveLesson {
  private readonly people = new Map<Id, Present>();
  /** Since when its tutor has had no window on it, in ms since 1970; `null` while they have one. */
  tutorAwaySince: number | null = Date.now();

  /** Whether students' windows follow the tutor's, and what that showed last. */
  inStep = false;
  view: View | null = null;

  constructor(
    readonly id: Id,
    readonly course: Id,
    readonly board: Id,
    readonly openedAt: number,
    readonly tutor: Id,
  ) {}

  add(person: Comer, since = Date.now(), known: string | null = null): Present {
    const present = { ...person, since, known, windows: 0, doorWindows: 0, page: null };
    this.people.set(person.id, present);
    return present;
  }

  /** Anyone who came, in or not. */
  person(id: Id): Present | undefined {
    return this.people.get(id);
  }

  /** Whoever came with this browser. */
  ofDevice(device: string): Present[] {
    return [...this.people.values()].filter((person) => person.device === device);
  }

  /** Students who are in. */
  students(): Present[] {
    return this.comers().filter(({ door }) => door === 'in');
  }

  /** How many students came, in or not. */
  get came(): number {
    return this.comers().length;
  }

  /** Takes the tutor's word for one, or for all who wait; returns to whom it applied. */
  word(who: Id | 'all', word: DoorWord): Present[] {
    const meant = this.comers().filter((person) =>
      who === 'all' ? person.door === 'waiting' && person.doorWindows > 0 : person.id === who,
    );
    return meant.filter((person) => {
      const door = afterWord(person.door, word);
      if (door) person.door = door;
      return door !== null;
    });
  }

  /** How many of this name came before, plus one. */
  nextNth(name: string): number {
    const same = name.toLocaleLowerCase();
    const taken = [...this.people.values()].filter((p) => p.name.toLocaleLowerCase() === same);
    return Math.max(0, ...taken.map(({ nth }) => nth)) + 1;
  }

  actor(id: Id): Actor {
    const person = this.people.get(id);
    return person?.door === 'in'
      ? { id, role: person.role, trust: person.trust }
      : { id, role: 'student', trust: 'look' };
  }

  get tutorPage(): Id | null {
    return this.people.get(this.tutor)?.page ?? null;
  }

  /** Everyone who is in, in order of arrival. Where students look is the tutor's to know. */
  list(viewer: Role): Person[] {
    return [...this.people.values()]
      .filter(({ door }) => door === 'in')
      .map(({ id, name, nth, role, trust, windows, page }) => ({
        id,
        name,
        nth,
        role,
        trust,
        here: windows > 0,
        page: viewer === 'tutor' ? page : null,
      }));
  }

  /** Everyone who is at the door just now, and everyone who was sent out. */
  arrivals(): Arrival[] {
    return this.comers()
      .filter(
        ({ door, doorWindows }) =>
          door === 'out' || door === 'barred' || (door !== 'in' && doorWindows > 0),
      )
      .map(({ id, name, nth, door, since, known, guest }) => ({
        id,
        name,
        nth,
        state: door,
        since,
        known,
        guest,
      }));
  }

  private comers(): Present[] {
    return [...this.people.values()].filter(({ role }) => role === 'student');
  }
}
