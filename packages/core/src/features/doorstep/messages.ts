import * as z from 'zod';
import { DoorState } from '../../permissions/index.js';
import { liveFeature } from '../feature.js';
import { Waiting } from './waiting.js';

/** What is told outside of lessons, on lines of their own: to a tutor on any screen, and to anyone who is at the door. */
export const doorstep = liveFeature({
  clientMessages: {},
  serverMessages: {
    /** Who waits for any of a tutor's lessons. */
    waiting: { who: z.array(Waiting) },
    /** To someone at the door: where they stand. */
    'door.state': { state: DoorState },
  },
  record: null,
  said: [],
});
