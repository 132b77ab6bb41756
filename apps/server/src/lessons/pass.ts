import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as z from 'zod';

/** How long a pass is good for, in ms: longer than any lesson. */
export const PASS_MS = 4 * 3600_000;

const Content = z.object({ lesson: z.string(), arrival: z.string(), until: z.number() });
/** A student's right to be in one lesson, tied to the arrival that was let in. */
export type Pass = z.infer<typeof Content>;

/** Signs passes, so that nobody can make one up. */
export class PassOffice {
  private constructor(private readonly key: Buffer) {}

  /** Reads the key in `folder`, or makes it the first time. */
  static async open(folder: string): Promise<PassOffice> {
    const path = join(folder, 'pass.key');
    await writeFile(path, randomBytes(32), { flag: 'wx', mode: 0o600 }).catch(
      (error: NodeJS.ErrnoException) => {
        if (error.code !== 'EEXIST') throw error;
      },
    );
    return new PassOffice(await readFile(path));
  }

  issue(lesson: string, arrival: string, now = Date.now()): string {
    const pass: Pass = { lesson, arrival, until: now + PASS_MS };
    const text = Buffer.from(JSON.stringify(pass)).toString('base64url');
    return `${text}.${this.sign(text)}`;
  }

  /** The pass, `'expired'`, or `null` for what this office never signed. */
  read(token: string | undefined, now = Date.now()): Pass | 'expired' | null {
    const [text, signature] = token?.split('.') ?? [];
    if (!text || !signature) return null;
    const expected = Buffer.from(this.sign(text));
    const given = Buffer.from(signature);
    if (expected.length !== given.length || !timingSafeEqual(expected, given)) return null;
    const pass = Content.parse(JSON.parse(Buffer.from(text, 'base64url').toString()));
    return pass.until < now ? 'expired' : pass;
  }

  private sign(text: string): string {
    return createHmac('sha256', this.key).update(text).digest('base64url');
  }
}
