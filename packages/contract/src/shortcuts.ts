import * as z from 'zod';

/** Commands whose key can have been changed; more than any build has. */
const MOST = 100;

/** A key that does something by itself: one character as it is typed, in lower case, or with Shift a capital. */
export const SingleKey = z
  .string()
  .max(10)
  .regex(/^(?:Shift\+)?[^\s\p{C}]$/u, 'Please choose one letter, digit or sign.');

/** What somebody has changed about the keys of a board. */
export const ShortcutSettings = z.strictObject({
  /** Whether a letter, digit or sign alone does something (WCAG 2.2, 2.1.4 Character Key Shortcuts). */
  singleKeys: z.boolean(),
  /** Another key by the name of its command; `null` where no key is wished. */
  changed: z
    .record(z.string().regex(/^[a-z][a-z0-9-]{0,39}$/), SingleKey.nullable())
    .refine((keys) => Object.keys(keys).length <= MOST, 'That is more than there are commands.'),
});
export type ShortcutSettings = z.infer<typeof ShortcutSettings>;

/** Nothing is changed. */
export const USUAL_SHORTCUTS: ShortcutSettings = { singleKeys: true, changed: {} };
