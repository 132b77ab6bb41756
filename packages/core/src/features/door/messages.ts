import * as z from 'zod';
import { Id } from '../../id/index.js';
import { DoorWord } from '../../permissions/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { Arrival } from './arrival.js';

/** Who comes, and whom the tutor lets in. */
export const door = liveFeature({
  clientMessages: {
    /** Lets in who waits, sends out who is in. */
    door: {
      from: 'tutor',
      limits: SMALL,
      fields: { who: z.union([Id, z.literal('all')]), word: DoorWord },
    },
  },
  serverMessages: {
    /** To the tutor: who is at the door, and who was sent out, in order of coming. */
    door: { arrivals: z.array(Arrival) },
  },
  record: null,
  said: [],
});
