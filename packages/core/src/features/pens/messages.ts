import * as z from 'zod';
import { Id } from '../../id/index.js';
import { Rules, RulesOver, Trust } from '../../permissions/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';

const whom = z.union([Id, z.literal('all')]);

/** Who holds a pen, what else they may do, who leads, and until when the lesson is planned. */
export const pens = liveFeature({
  clientMessages: {
    /** Gives or takes pens: one person's or every student's. */
    trust: { from: 'helper', limits: SMALL, fields: { who: whom, trust: Trust } },
    /** Says what else someone may do, or the class; `null` unsays it. */
    rules: { from: 'helper', limits: SMALL, fields: { who: whom, over: RulesOver } },
    /** Hands over the lead, or takes it back with `null`. */
    lead: { from: 'helper', limits: SMALL, fields: { who: Id.nullable() } },
    /** Plans the end of the lesson, in ms since 1970. */
    plan: {
      from: 'helper',
      limits: SMALL,
      fields: { endsAt: z.number().min(0).max(1e14).nullable() },
    },
  },
  serverMessages: {
    /** What holds for the class, and who leads: `null` while the tutor does. */
    class: {
      rules: Rules,
      lead: Id.nullable(),
      /** When the lesson is to end, in ms since 1970, if that was planned. */
      endsAt: z.number().nullable(),
    },
  },
  record: null,
  said: [],
});
