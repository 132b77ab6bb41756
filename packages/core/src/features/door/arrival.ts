import * as z from 'zod';
import { Id } from '../../id/index.js';
import { DoorState, GivenRole } from '../../permissions/index.js';

/** Someone who is not in the lesson: at its door, or sent out. Only those who teach see them. */
export const Arrival = z.object({
  id: Id,
  name: z.string(),
  nameOrdinal: z.number().int().min(1),
  state: DoorState,
  /** What they are to be when they are let in, if nothing else is said. */
  role: GivenRole,
  /** When they came to the door, in ms since 1970. */
  since: z.number(),
  /** Whether this browser was let into the course before, and under which name it was then. */
  known: z.string().nullable(),
  /** Whose link for a guest they came by, if they did. */
  guest: z.string().nullable(),
});
export type Arrival = z.infer<typeof Arrival>;
