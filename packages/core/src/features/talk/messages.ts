import * as z from 'zod';
import { Id } from '../../id/index.js';
import { liveFeature } from '../feature.js';
import { SMALL } from '../limits.js';
import { ChatLine, ChatTo, MAX_CHAT, Signal } from './talk.js';

/** Hands, signals and the chat. */
export const talk = liveFeature({
  clientMessages: {
    /** Raises one's own hand or lowers it. */
    hand: { from: 'student', limits: SMALL, fields: { up: z.boolean() } },
    /** Lowers someone's hand, or all. */
    lower: { from: 'helper', limits: SMALL, fields: { who: z.union([Id, z.literal('all')]) } },
    signal: { from: 'student', limits: SMALL, fields: { signal: Signal.nullable() } },
    /** Takes all signals in. */
    'signals.clear': { from: 'helper', limits: SMALL, fields: {} },
    chat: {
      from: 'student',
      // 8,000 characters of four bytes, of which most are taken away again: see `ChatText`.
      limits: { ...SMALL, bytes: 33_000, text: 33_000 },
      fields: { id: Id, to: ChatTo, text: z.string().max(4 * MAX_CHAT) },
    },
    /** Empties the chat. */
    'chat.empty': { from: 'tutor', limits: SMALL, fields: {} },
  },
  serverMessages: {
    /** Messages that were written, the earlier first; all that one may read when one comes. */
    chat: { lines: z.array(ChatLine) },
    'chat.empty': {},
  },
  record: {
    chat: z.array(z.object({ by: Id, to: z.string(), text: z.string(), at: z.number() })),
    /** `hand`, `hand.down`, a signal, or `signal.none`. */
    gestures: z.array(z.object({ by: Id, what: z.string(), at: z.number() })),
  },
  said: ['chat'],
});
