import type * as z from 'zod';

/** What a text says that came from outside of this page, if it is what it should be; otherwise `null`. */
export function readJson<Schema extends z.ZodType>(
  schema: Schema,
  text: string | null,
): z.output<Schema> | null {
  try {
    return schema.safeParse(JSON.parse(text ?? '')).data ?? null;
  } catch {
    return null;
  }
}
