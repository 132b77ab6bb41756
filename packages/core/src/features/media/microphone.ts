import * as z from 'zod';
import { Id } from '../../id/index.js';

/** What a window does with its microphone: nothing, nothing just now, or it is heard. */
export const Microphone = z.enum(['off', 'muted', 'on']);
export type Microphone = z.infer<typeof Microphone>;

/** A window that voices go to, as everyone in the lesson knows of it. */
export const MediaWindow = z.object({ id: Id, person: Id, microphone: Microphone });
export type MediaWindow = z.infer<typeof MediaWindow>;

/** How often somebody was muted by another in this lesson, and by whom last; `null` where that never was. */
export const Muted = z.object({ times: z.number().int().min(0), by: Id.nullable() });
export type Muted = z.infer<typeof Muted>;

/** A server that says how a machine is seen from outside (STUN), or passes on what can't go straight (TURN). */
export const IceServer = z.object({
  urls: z.array(z.string()),
  username: z.string().optional(),
  credential: z.string().optional(),
});
export type IceServer = z.infer<typeof IceServer>;
