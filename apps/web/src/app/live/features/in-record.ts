import { SAID_SOURCES } from '@cuaderno/core/features';
import type { RecordTimeline, SaidSource } from '@cuaderno/core/features';
import type { Happening, HappeningSign, LessonNames, SaidWords } from './feature';
import { FEATURES } from './register';

/** A part of any feature: each is only ever given a whole timeline, in which its own is. */
interface AnyInRecord {
  happenings(timeline: RecordTimeline, lesson: LessonNames): readonly Happening[];
  readonly signs: readonly HappeningSign[];
  readonly said: Readonly<Partial<Record<SaidSource, SaidWords>>>;
}

const all: readonly AnyInRecord[] = Object.values(FEATURES).flatMap(
  ({ inRecord }) => inRecord ?? [],
);

/** What the timeline tells, in the order of time. */
export function happeningsIn(timeline: RecordTimeline, lesson: LessonNames): Happening[] {
  return all.flatMap((feature) => feature.happenings(timeline, lesson)).sort((a, b) => a.at - b.at);
}

/** Every sign that may stand on a line of time. */
export const SIGNS: readonly HappeningSign[] = all.flatMap(({ signs }) => signs);

/** How what was said somewhere is shown. */
export const SAID = Object.fromEntries(
  SAID_SOURCES.map((source) => [source, all.find(({ said }) => source in said)!.said[source]!]),
) as Readonly<Record<SaidSource, SaidWords>>;
