import type { HeldLesson, Planned, TimetablePart } from '../../api/timetable';
import { formatPlaceOf, formatSpanIn } from '../../ui/time/format-time';

/** A lesson of a week: planned, cancelled, or one that took place. */
export interface WeekEntry {
  readonly key: string;
  readonly kind: 'planned' | 'cancelled' | 'held';
  /** The planned date; `null` for a lesson that took place. */
  readonly lesson: Planned | null;
  /** The lesson that took place. */
  readonly held: HeldLesson | null;
  /** In ms since 1970. */
  readonly at: number;
  readonly until: number;
  /** From when to when, by the clock of the week’s zone. */
  readonly time: string;
  /** What it is called. */
  readonly name: string;
  /** What else is to be known of it, a line each. */
  readonly more: readonly string[];
  readonly isClashing: boolean;
  /** All of it in words. */
  readonly said: string;
}

/**
 * What is shown of a week, in the order of time. A date for which a lesson took place is that lesson.
 * @param zone IANA time zone by whose clock times are said
 * @param here that of this machine; where it is another, times by its clock stand beside
 */
export function weekEntries(part: TimetablePart, zone: string, here: string): WeekEntry[] {
  const { lessons, clashes, held } = part;
  const beside = (at: number, until: number): string[] =>
    zone === here ? [] : [`${formatSpanIn(at, until, here)} in ${formatPlaceOf(here)}`];
  const planned = lessons
    .filter(({ heldAs }) => heldAs === null)
    .map((lesson): WeekEntry => {
      const { plan, was, at, until, courseName, topic, state, why } = lesson;
      const clash = state === 'cancelled' ? null : clashOf(lesson, lessons, clashes);
      const changed = state === 'planned' ? [] : [why ? `${state}: ${why}` : state];
      return entry({
        ...{ key: `${plan} ${was}`, kind: state === 'cancelled' ? 'cancelled' : 'planned' },
        ...{ lesson, held: null, at, until, name: courseName, isClashing: clash !== null },
        time: formatSpanIn(at, until, zone),
        more: [
          ...beside(at, until),
          ...changed,
          ...(clash ? [clash] : []),
          ...(topic ? [topic] : []),
        ],
      });
    });
  const took = held.map((one): WeekEntry => {
    const { lesson, at, until, courseName } = one;
    const topic = lessons.find(({ heldAs }) => heldAs === lesson)?.topic;
    return entry({
      ...{ key: lesson, kind: 'held', lesson: null, held: one, at, until, name: courseName },
      ...{ isClashing: false, time: `Record, ${formatSpanIn(at, until, zone)}` },
      more: [...beside(at, until), ...(topic ? [topic] : [])],
    });
  });
  return [...planned, ...took].sort((a, b) => a.at - b.at);
}

function entry(parts: Omit<WeekEntry, 'said'>): WeekEntry {
  const { time, name, more } = parts;
  return { ...parts, said: [`${time} ${name}`, ...more].join(', ') };
}

/** What is in the way of a lesson, in words. */
function clashOf(
  lesson: Planned,
  lessons: readonly Planned[],
  clashes: TimetablePart['clashes'],
): string | null {
  const is = (one: Pick<Planned, 'plan' | 'was'>): boolean =>
    one.plan === lesson.plan && one.was === lesson.was;
  for (const { first, second, how } of clashes) {
    const other = is(first) ? second : is(second) ? first : null;
    const found =
      other && lessons.find(({ plan, was }) => plan === other.plan && was === other.was);
    if (!found) continue;
    if (how === 'overlap') return `At the same time as ${found.courseName}`;
    return is(second)
      ? `No break after ${found.courseName}`
      : `No break before ${found.courseName}`;
  }
  return null;
}
