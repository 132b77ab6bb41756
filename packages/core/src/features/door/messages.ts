import * as z from 'zod';
import { Id } from '../../id/index.js';
import { DoorWord, GivenRole } from '../../permissions/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { Arrival } from './arrival.js';

/** Who comes, and whom the tutor lets in. */
export const door = liveFeature({
  clientMessages: {
    /**
     * Lets in who waits, as what they are to be there; makes who is in something else, and sends them out. Roles are
     * the tutor's to give.
     */
    door: {
      from: 'helper',
      limits: SMALL,
      fields: {
        who: z.union([Id, z.literal('all')]),
        word: DoorWord,
        as: GivenRole.optional(),
      },
    },
  },
  serverMessages: {
    /** To those who teach: who is at the door, and who was sent out, in order of coming. */
    door: { arrivals: z.array(Arrival) },
  },
  record: null,
  said: [],
});
