/** A lesson that is planned: see the server's `timetable/shapes.ts`. Moments in ms since 1970. */
export interface Planned {
  readonly plan: string;
  readonly course: string;
  readonly courseName: string;
  readonly topic: string;
  /** By which it is known among those of its series. */
  readonly was: string;
  /** `2026-11-24T16:30`, as the clock of its zone shows it */
  readonly wall: string;
  readonly zone: string;
  readonly at: number;
  readonly until: number;
  /** Kept free after it, in minutes. */
  readonly buffer: number;
  readonly series: boolean;
  readonly state: 'planned' | 'moved' | 'cancelled';
  readonly why: string;
}

export interface ClashOf {
  readonly first: Pick<Planned, 'plan' | 'was'>;
  readonly second: Pick<Planned, 'plan' | 'was'>;
  readonly how: 'overlap' | 'tight';
}

export interface TimetablePart {
  readonly lessons: readonly Planned[];
  readonly clashes: readonly ClashOf[];
}

/** A lesson as it counts: see the server's `hours/shapes.ts`. Lengths in minutes. */
export interface HourRow {
  readonly lesson: string;
  readonly course: string;
  readonly courseName: string;
  readonly openedAt: number;
  readonly closedAt: number;
  readonly measured: number;
  readonly minutes: number;
  readonly corrections: readonly {
    readonly minutes: number;
    readonly why: string;
    readonly at: number;
  }[];
  readonly students: readonly string[];
}
