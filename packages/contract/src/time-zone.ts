import { IANAZone } from 'luxon';
import * as z from 'zod';

/** The time zone in which times are said: that of whoever asks. */
export const Zone = z.object({
  zone: z
    .string()
    .max(100)
    .refine((name) => IANAZone.isValidZone(name), 'a time zone, as Europe/Oslo')
    .default('UTC'),
});
