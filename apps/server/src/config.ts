import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { z } from 'zod';
import type { OfficeLimits } from './slides/office.js';

const flag = z
  .enum(['0', '1'])
  .default('0')
  .transform((value) => value === '1');

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
  /** Set when a proxy in front serves https and names the visitor's address. */
  CUADERNO_BEHIND_PROXY: flag,
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
  /** How long a lesson stays open without its tutor, in ms. */
  readonly awayMs: number;
  readonly demo: boolean;
  readonly behindProxy: boolean;
  readonly logLevel: string;
  /** Limits of the program that converts slides, where they aren't the usual ones. */
  readonly office?: Partial<OfficeLimits>;
  /** Requests a minute from one address. */
  readonly requestsPerMinute: number;
}

/** Reads settings from the environment. Throws with a plain sentence for one that can't be used. */
export function readConfig(env: NodeJS.ProcessEnv, siteFolder: string | null): Config {
  const result = Environment.safeParse(env);
  if (!result.success) {
    const { path, message } = result.error.issues[0]!;
    throw new Error(`The setting ${path.join('.')} can't be used: ${message}.`);
  }
  const e = result.data;
  return {
    dataFolder: resolve(e.CUADERNO_DATA),
    siteFolder,
    host: e.HOST,
    port: e.PORT,
    maxUploadBytes: Math.round(e.CUADERNO_MAX_UPLOAD_MB * 1024 * 1024),
    maxPages: e.CUADERNO_MAX_PAGES,
    messagesPerSecond: e.CUADERNO_MESSAGES_PER_SECOND,
    awayMs: e.CUADERNO_AWAY_MINUTES * 60_000,
    demo: e.CUADERNO_DEMO,
    behindProxy: e.CUADERNO_BEHIND_PROXY,
    logLevel: e.LOG_LEVEL,
    requestsPerMinute: 3000,
  };
}

/** Settings for a test: a folder of its own, any free port, no site. */
export function testConfig(name: string, change: Partial<Config> = {}): Config {
  return {
    ...readConfig({ LOG_LEVEL: 'silent', PORT: '0' }, null),
    dataFolder: join(tmpdir(), `cuaderno-${process.pid}-${name}`),
    requestsPerMinute: 100_000,
    ...change,
  };
}
