import { nameOf } from '@cuaderno/core/people';
import type { RecordTimeline } from '@cuaderno/core/features';
import type { Attendance } from '../../api/shapes';
import { happeningsIn } from '../../live/features/in-record';
import type { Happening } from '../../live/features/feature';

/** What the timeline tells, as sentences about people, in the order of time. */
export function happeningsOf(
  timeline: RecordTimeline,
  people: readonly Attendance[],
  pageNumber: (page: string) => number | null,
): Happening[] {
  const names = new Map(people.map((person) => [person.id, nameOf(person)]));
  return happeningsIn(timeline, { name: (id) => names.get(id) ?? 'Somebody', pageNumber });
}
