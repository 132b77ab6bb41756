import type { ClashShape, Planned } from '@cuaderno/contract/timetable';

export type { HourRow } from '@cuaderno/contract/hours';
export type { ClashShape as ClashOf, Planned } from '@cuaderno/contract/timetable';

export interface TimetablePart {
  readonly lessons: readonly Planned[];
  readonly clashes: readonly ClashShape[];
}
