import * as z from 'zod';
import type { Id } from '../id/index.js';

/** A time by the clock on the wall, as `2026-11-24T16:30`: which moment that is, its time zone says. */
export const WallTime = z
  .string()
  .regex(/^\d{4}-\d\d-\d\dT([01]\d|2[0-3]):[0-5]\d$/, 'a day and a time, as 2026-11-24T16:30')
  .refine((text) => {
    // The 31st of February is taken for one of March.
    const at = Date.parse(`${text}Z`);
    return !Number.isNaN(at) && new Date(at).toISOString().startsWith(text);
  }, 'there is no such day');
export type WallTime = z.infer<typeof WallTime>;

/**
 * What lessons are like unless it is said otherwise: 50 minutes in a slot of 60, with the door open from 10 minutes
 * before (common practice, no source).
 */
export const USUAL = { minutes: 50, buffer: 10, doorsBefore: 10 } as const;

/** One date of a series that is another day, or isn't at all. */
export const PlanChange = z.object({
  /** When it would have been. */
  was: WallTime,
  /** When it is instead; `null` where it is cancelled. */
  now: WallTime.nullable(),
  /** What was said of it. */
  why: z.string().max(300),
});
export type PlanChange = z.infer<typeof PlanChange>;

/** Lessons of a course that are planned: one, or a series. */
export interface Plan {
  readonly id: Id;
  readonly course: Id;
  /** What it is about; empty where the course says it all. */
  readonly topic: string;
  /** The first. */
  readonly start: WallTime;
  /** IANA time zone */
  readonly zone: string;
  /** Of the lesson. */
  readonly minutes: number;
  /** Kept free after it. */
  readonly buffer: number;
  /** A recurrence rule (RFC 5545, 3.3.10); `null` for a single lesson. */
  readonly rule: string | null;
  readonly changes: readonly PlanChange[];
}

/** One lesson of a plan. Moments in ms since 1970. */
export interface Occurrence {
  readonly plan: Plan;
  /** When it was planned at first: by that it is known. */
  readonly was: WallTime;
  readonly at: number;
  readonly until: number;
  readonly state: 'planned' | 'moved' | 'cancelled';
  readonly why: string;
}
