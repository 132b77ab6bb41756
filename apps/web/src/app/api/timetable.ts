import type { Answer } from '@cuaderno/contract/route';
import type { readTimetable } from '@cuaderno/contract/routes/timetable';

export type { HourRow } from '@cuaderno/contract/hours';
export type { ClashShape as ClashOf, HeldLesson, Planned } from '@cuaderno/contract/timetable';

export type TimetablePart = Answer<typeof readTimetable>;
