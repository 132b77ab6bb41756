import { CLOSE } from '@cuaderno/core';
import type { Actor, Id, Role, CloseCode } from '@cuaderno/core';
import type { Session, Sessions } from '../accounts/index.js';
import type { LiveLesson, Participant } from '../lessons/live-lesson.js';
import type { Lessons } from '../lessons/service.js';

/** By what right a window is there. It is asked with every message: rights end while windows are open. */
export interface WindowSeat {
  readonly person: Id;
  readonly role: Role;
  /** The course whose lessons it is in. */
  readonly course: Id;
  /** The lesson that is on, if one is. */
  lesson(): LiveLesson | undefined;
  /** Who it is and what they may do, at this moment. */
  actor(): Actor;
  /** Why this window may say and hear nothing any more; `null` while it may. */
  gone(): CloseCode | null;
}

/** A tutor's, as long as the session lasts that the window came with. */
export function tutorSeat(
  session: Session,
  course: Id,
  { sessions, lessons }: { sessions: Sessions; lessons: Lessons },
): WindowSeat {
  const person = session.tutor.id;
  const may: Actor = { id: person, role: 'tutor', trust: 'hands' };
  const not: Actor = { id: person, role: 'student', trust: 'view' };
  const gone = (): CloseCode | null => (sessions.isOn(session.key) ? null : CLOSE.notIn);
  return {
    ...{ person, role: 'tutor', course, gone },
    lesson: () => lessons.ofCourse(course),
    actor: () => (gone() ? not : may),
  };
}

/** Somebody's who came by the door, as long as the lesson is open and they are in it as what they were let in. */
export function studentSeat(lesson: LiveLesson, person: Participant, lessons: Lessons): WindowSeat {
  const { role } = person;
  return {
    ...{ person: person.id, role, course: lesson.course },
    lesson: () => lesson,
    actor: () => lesson.actor(person.id),
    gone() {
      if (lessons.get(lesson.id) !== lesson) return CLOSE.over;
      if (person.door !== 'in') return CLOSE.door;
      // Let in again as something else: what this window was sent is another's.
      return person.role === role ? null : CLOSE.again;
    },
  };
}
