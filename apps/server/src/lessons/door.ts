import { comesIn, knocked, newId } from '@cuaderno/core';
import type { DoorRule, DoorWord, GivenRole, Id, Role, Trust } from '@cuaderno/core';
import { and, eq } from 'drizzle-orm';
import { knownDevices } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import type { LiveLesson, Participant } from './live-lesson.js';
import { people } from './tables.js';

/** Students who come to one lesson at most, whether they are let in or not. */
const MAX_COMERS = 120;

/** Who knocks. */
export interface Knocker {
  readonly name: string;
  /** SHA-256 of what their browser keeps. */
  readonly device: string;
  /** Whom the link was made for that they came by, if it was a guest's. */
  readonly guest: string | null;
  /** What they are when they are in, if nothing else is said at the door. */
  readonly role: GivenRole;
}

/**
 * The door of every lesson: anyone who comes waits there until they are let in. Where someone stands
 * holds from the moment it is said, and goes to disk after that.
 */
export class Door {
  /** Called when somebody came to a lesson's door or left it, or was told something. */
  onChange: (lesson: LiveLesson, moved: readonly Participant[]) => void = () => undefined;

  constructor(private readonly db: Database) {}

  /**
   * Somebody comes. Where the tutor keeps somebody out, who comes with a browser that isn't known waits, even where
   * the door is open to all: it may be them. Throws `kept-out` for whom the tutor keeps out of this lesson.
   */
  async knock(lesson: LiveLesson, rule: DoorRule, who: Knocker): Promise<Participant> {
    const { name, device, guest, role } = who;
    this.refuseKeptOut(lesson, device);
    if (lesson.came >= MAX_COMERS) throw new ProblemError('slow-down');
    const known = await this.knownName(lesson.course, device);
    const now = Date.now();
    const comes = comesIn(rule, known !== null) && (known !== null || !lesson.keepsOut);
    const person = lesson.add(
      {
        id: newId(),
        name,
        nameOrdinal: lesson.nextOrdinal(name),
        role,
        trust: trustOf(role, lesson),
        rules: {},
        door: comes ? 'in' : 'waiting',
        device,
        guest,
      },
      now,
      known,
    );
    const { id, nameOrdinal, trust, door } = person;
    await this.db.insert(people).values({
      id,
      name,
      nameOrdinal,
      role,
      trust,
      door,
      device,
      guest,
      lesson: lesson.id,
      arrivedAt: now,
      hadPen: trust !== 'view',
    });
    if (door === 'in') await this.remember(lesson, person);
    this.onChange(lesson, [person]);
    return person;
  }

  /** Somebody who came before knocks once more. Throws `kept-out`. */
  async again(lesson: LiveLesson, person: Participant): Promise<void> {
    if (person.device) this.refuseKeptOut(lesson, person.device);
    const door = knocked(person.door);
    if (door === person.door) return;
    person.door = door;
    person.since = Date.now();
    await this.keep(lesson, [person]);
    this.onChange(lesson, [person]);
  }

  /**
   * The word of one who teaches; it holds from here on. Returns to whom it applied.
   * @param as what who is let in is from now on, or who is in already; nothing said, what they were, or are by their link
   */
  async word(
    lesson: LiveLesson,
    who: Id | 'all',
    word: DoorWord,
    as?: GivenRole,
  ): Promise<Participant[]> {
    const moved = lesson.word(who, word, as);
    if (moved.length === 0) return moved;
    for (const person of moved) {
      // Anyone who comes in has what the class has by now, and so has anyone who comes in again.
      if (word === 'in' && as) person.role = as;
      person.trust = word === 'in' ? trustOf(person.role, lesson) : 'view';
      person.handAt = null;
      person.signal = null;
    }
    this.onChange(lesson, moved);
    await this.keep(lesson, moved);
    if (word === 'in') for (const person of moved) await this.remember(lesson, person);
    return moved;
  }

  private refuseKeptOut(lesson: LiveLesson, device: string): void {
    if (lesson.ofDevice(device).some(({ door }) => door === 'barred'))
      throw new ProblemError('kept-out');
  }

  private async keep(lesson: LiveLesson, moved: readonly Participant[]): Promise<void> {
    for (const { id, door, role, trust } of moved)
      await this.db
        .update(people)
        .set({ door, role, trust, ...(trust === 'view' ? {} : { hadPen: true }) })
        .where(and(eq(people.lesson, lesson.id), eq(people.id, id)));
  }

  /** The name under which a browser was let into a course before, if it was. @param device SHA-256 of what it keeps */
  async knownName(course: Id, device: string): Promise<string | null> {
    const [row] = await this.db
      .select({ name: knownDevices.name })
      .from(knownDevices)
      .where(and(eq(knownDevices.course, course), eq(knownDevices.device, device)));
    return row?.name ?? null;
  }

  /** Only students are known again: a guest comes once, and who helps or watches is let in each time. */
  private async remember({ course }: LiveLesson, person: Participant): Promise<void> {
    const { name, device, guest, role } = person;
    if (!device || guest !== null || role !== 'student') return;
    const at = Date.now();
    await this.db
      .insert(knownDevices)
      .values({ course, device, name, at })
      .onConflictDoUpdate({
        target: [knownDevices.course, knownDevices.device],
        set: { name, at },
      });
  }
}

/** What pen somebody has who comes in: a student has what the class has. */
function trustOf(role: Role, { rules }: LiveLesson): Trust {
  if (role === 'student') return rules.trust ?? 'view';
  return role === 'watcher' ? 'view' : 'hands';
}
