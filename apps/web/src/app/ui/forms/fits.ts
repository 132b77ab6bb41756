import type { ValidatorFn } from '@angular/forms';
import * as z from 'zod';

/**
 * Says of a control whether its value is what a schema asks for, by the words of the schema: what the server would say of it
 * is said before it is sent.
 */
export function fits(schema: z.ZodType): ValidatorFn {
  return ({ value }) => {
    const { error } = schema.safeParse(value);
    return error ? { words: error.issues[0]!.message } : null;
  };
}

/** Says that something has to be written or chosen, and what. */
export function isWritten(words: string): ValidatorFn {
  return fits(z.string(words).trim().min(1, words));
}
