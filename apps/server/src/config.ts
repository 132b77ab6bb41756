import { isIP } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import * as z from 'zod';
import { PASSWORD_COST } from './accounts/passwords.js';
import type { IceSettings } from './live/features/media/ice-servers.js';
import { StartError } from './problems/start-error.js';
import type { OfficeLimits } from './slides/office.js';
import type { Workers } from './workers/workers.js';

const flag = z
  .enum(['0', '1'])
  .default('0')
  .transform((value) => value === '1');

/** An address, or a range of them as 10.1.0.0/16. */
function isAddress(text: string): boolean {
  const [address = '', bits] = text.split('/');
  return isIP(address) > 0 && (bits === undefined || /^\d{1,3}$/.test(bits));
}

/** Addresses of servers for voices, one after the other. */
function iceServers(pattern: RegExp, example: string): z.ZodType<string[], string | undefined> {
  return z
    .string()
    .default('')
    .transform((text) =>
      text
        .split(',')
        .map((one) => one.trim())
        .filter(Boolean),
    )
    .refine((all) => all.every((one) => pattern.test(one)), `write them as ${example}`);
}

const Environment = z.object({
  /** Folder that holds everything: the database, files, the signing key. */
  CUADERNO_DATA: z.string().min(1).default('data'),
  HOST: z.string().default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65_535).default(8080),
  /** Largest upload, in megabytes. */
  CUADERNO_MAX_UPLOAD_MB: z.coerce.number().positive().default(200),
  /** Most pages a PDF may bring. */
  CUADERNO_MAX_PAGES: z.coerce.number().int().positive().default(5000),
  /** Messages a second that one window may send for long; three times as many in a burst. */
  CUADERNO_MESSAGES_PER_SECOND: z.coerce.number().int().positive().default(200),
  /** Minutes after which a lesson whose tutor is gone closes itself into a record. */
  CUADERNO_AWAY_MINUTES: z.coerce.number().positive().default(30),
  /** Lets anyone sign in as the demo tutor with one click. */
  CUADERNO_DEMO: flag,
  /**
   * Proxies in front of it that serve https and name the visitor's address: how many there are, one behind the
   * other, or their addresses. Anyone else who names an address in a header isn't believed.
   */
  CUADERNO_PROXIES: z
    .string()
    .trim()
    .default('0')
    .transform((text) =>
      /^\d$/.test(text)
        ? Number(text)
        : text
            .split(',')
            .map((one) => one.trim())
            .filter(Boolean),
    )
    .refine(
      (found) => typeof found === 'number' || found.every(isAddress),
      'give the number of proxies (1), or their addresses (10.0.0.1, 10.1.0.0/16)',
    ),
  /** Where people find it, as https://boards.example.org: for links in letters. */
  CUADERNO_ADDRESS: z
    .url({ protocol: /^https?$/ })
    .transform((url) => new URL(url).origin)
    .optional(),
  /** Servers that tell a window how it is seen from outside, one after the other: `stun:stun.example.org:3478`. */
  CUADERNO_STUN: iceServers(/^stuns?:[A-Za-z0-9.:[\]-]+$/, 'stun:stun.example.org:3478'),
  /** Servers that pass voices on where windows don't reach one another: `turn:turn.example.org:3478`. */
  CUADERNO_TURN: iceServers(
    /^turns?:[A-Za-z0-9.:[\]-]+(\?transport=(udp|tcp))?$/,
    'turn:turn.example.org:3478?transport=udp',
  ),
  /** What is shared with these: `static-auth-secret` of coturn. */
  CUADERNO_TURN_SECRET: z.string().min(16, 'give at least 16 letters').optional(),
  LOG_LEVEL: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('info'),
});

export interface Config {
  readonly dataFolder: string;
  /** Folder of the built web application; `null` serves none. */
  readonly siteFolder: string | null;
  readonly host: string;
  readonly port: number;
  readonly maxUploadBytes: number;
  readonly maxPages: number;
  readonly messagesPerSecond: number;
  /** By which servers windows find a way to one another. */
  readonly ice: IceSettings;
  /** How long a lesson stays open without its tutor, in ms. */
  readonly awayMs: number;
  readonly demo: boolean;
  /** How many proxies are believed, from this server on, or which. */
  readonly proxies: number | string[];
  /** Where people find it, as `https://…`; `null` where that isn't known. */
  readonly address: string | null;
  readonly logLevel: string;
  /** Limits of the program that converts slides, where they aren't the usual ones. */
  readonly office?: Partial<OfficeLimits>;
  /** How long the body of a request may make no progress, in ms. */
  readonly bodyPatienceMs: number;
  /** Threads that several servers of one process share; without them it has its own. */
  readonly workers?: Workers;
  /** What it costs to check a password: N of scrypt. No setting lowers it; tests do. */
  readonly passwordCost: number;
  /** Requests a minute from one address. */
  readonly requestsPerMinute: number;
}

/** Reads settings from the environment. Throws with a plain sentence for one that can't be used. */
export function readConfig(env: NodeJS.ProcessEnv, siteFolder: string | null): Config {
  const result = Environment.safeParse(env);
  if (!result.success) {
    const { path, message } = result.error.issues[0]!;
    throw new StartError(`The setting ${path.join('.')} can't be used: ${message}.`);
  }
  const e = result.data;
  if (e.CUADERNO_TURN.length > 0 && !e.CUADERNO_TURN_SECRET)
    throw new StartError('The setting CUADERNO_TURN needs CUADERNO_TURN_SECRET beside it.');
  return {
    dataFolder: resolve(e.CUADERNO_DATA),
    siteFolder,
    host: e.HOST,
    port: e.PORT,
    maxUploadBytes: Math.round(e.CUADERNO_MAX_UPLOAD_MB * 1024 * 1024),
    maxPages: e.CUADERNO_MAX_PAGES,
    messagesPerSecond: e.CUADERNO_MESSAGES_PER_SECOND,
    ice: {
      stun: e.CUADERNO_STUN,
      turn: e.CUADERNO_TURN,
      turnSecret: e.CUADERNO_TURN_SECRET ?? null,
    },
    awayMs: e.CUADERNO_AWAY_MINUTES * 60_000,
    demo: e.CUADERNO_DEMO,
    proxies: e.CUADERNO_PROXIES,
    address: e.CUADERNO_ADDRESS ?? (isLoopback(e.HOST) ? `http://localhost:${e.PORT}` : null),
    logLevel: e.LOG_LEVEL,
    bodyPatienceMs: 30_000,
    passwordCost: PASSWORD_COST,
    requestsPerMinute: 3000,
  };
}

function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || host.startsWith('127.');
}

/** Folders of tests so far: one that is still being closed is never in the way of the next. */
let folders = 0;

/** Settings for a test: a folder of its own, any free port, no site. */
export function testConfig(name: string, change: Partial<Config> = {}): Config {
  return {
    ...readConfig({ LOG_LEVEL: 'silent', PORT: '0' }, null),
    dataFolder: join(tmpdir(), `cuaderno-${process.pid}-${name}-${++folders}`),
    requestsPerMinute: 100_000,
    passwordCost: 2 ** 10,
    ...change,
  };
}
