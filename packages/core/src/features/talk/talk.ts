import * as z from 'zod';
import { Id } from '../../id/index.js';

/** What a student says with one touch, without a word. */
export const Signal = z.enum(['yes', 'no', 'slower', 'faster', 'got-it', 'lost', 'away']);
export type Signal = z.infer<typeof Signal>;

/** Longest message in a chat, in characters as people count them. */
export const MAX_CHAT = 2000;

/** Left out of messages: what turns or hides other text, and controls but for new lines. */
const UNSEEN = /(?!\n)[\p{Cc}\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]/gu;

/** What is written in the chat: composed (Unicode NFC), without characters nobody sees. */
export const ChatText = z
  .string()
  .max(4 * MAX_CHAT, `That is too long. Use at most ${MAX_CHAT} letters.`)
  .transform((text) => text.normalize('NFC').replace(UNSEEN, '').trim())
  .refine((text) => text.length > 0, 'Write something first.')
  .refine(
    (text) => [...text].length <= MAX_CHAT,
    `That is too long. Use at most ${MAX_CHAT} letters.`,
  );

/** Who reads a message: all, the tutor alone, or one student beside the tutor. */
export const ChatTo = z.union([z.enum(['all', 'tutor']), Id]);
export type ChatTo = z.infer<typeof ChatTo>;

/** A message as it is kept with the lesson. */
export const ChatLine = z.object({
  id: Id,
  by: Id,
  to: ChatTo,
  text: z.string(),
  /** Milliseconds since 1970, by the server's clock. */
  at: z.number(),
});
export type ChatLine = z.infer<typeof ChatLine>;
