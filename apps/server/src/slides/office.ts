import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import {
  cp,
  mkdir,
  mkdtemp,
  readdir,
  rename,
  rm,
  writeFile,
  copyFile,
  access,
} from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

/** Why a deck could not be turned into pages. */
export type OfficeFault =
  /** There is no LibreOffice on this machine. */
  | 'missing'
  /** It took longer than it may. */
  | 'too-slow'
  /** It ended without a result: the deck is more than it can read, or brought it down. */
  | 'failed';

export class OfficeError extends Error {
  override readonly name = 'OfficeError';
  constructor(readonly fault: OfficeFault) {
    super(fault);
  }
}

export interface OfficeLimits {
  /** Longest that one deck may take, in ms. */
  readonly ms: number;
  /** Address space it may use, in kB; it reserves far more than it fills. */
  readonly kilobytes: number;
  readonly command: string;
}

const LIMITS: OfficeLimits = { ms: 120_000, kilobytes: 6_000_000, command: 'soffice' };

/** Hidden slides become pages, too: they are hidden there. */
const PDF = 'pdf:impress_pdf_Export:{"ExportHiddenSlides":{"type":"boolean","value":"true"}}';

/** No macros, nothing active, and nothing fetched from elsewhere. */
const SETTINGS = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry" xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance">
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="MacroSecurityLevel" oor:op="fuse"><value>3</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="DisableMacrosExecution" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="DisableActiveContent" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="BlockUntrustedRefererLinks" oor:op="fuse"><value>true</value></prop></item>
</oor:items>
`;

/** Ways to run a program without network (unshare of util-linux), as a user who may do that, or as any. */
const WITHOUT_NETWORK = ['unshare -n --', 'unshare -r -n --'];

/** How long a LibreOffice that was started ahead waits for its deck, in ms. */
const STANDBY_MS = 120_000;

/** A LibreOffice that was started ahead of its deck, with the folder that is its own. */
interface Standby {
  readonly folder: string;
  readonly profile: string;
  readonly child: ChildProcess;
}

/**
 * LibreOffice, which turns slides into pages: a process of its own for each deck, with a profile folder
 * of its own and limits of time and memory. Whatever it leaves is cleared away. Where a deck is
 * expected, the process is started before it comes: starting takes as long as the deck.
 */
export class Office {
  private readonly limits: OfficeLimits;
  private standby: Promise<Standby | null> | null = null;
  private expiry: ReturnType<typeof setTimeout> | undefined;

  /** @param profile folder of a profile that was used before: starting from one takes half the time */
  constructor(
    private readonly profile: string,
    limits: Partial<OfficeLimits> = {},
  ) {
    this.limits = { ...LIMITS, ...limits };
  }

  /** Where decks are worked on, each in a folder of its own. */
  private get work(): string {
    return `${this.profile}-work`;
  }

  /** Removes what a server left that was killed. To be called before anything is converted. */
  async tidy(): Promise<void> {
    await rm(this.work, { recursive: true, force: true });
  }

  /**
   * Converts a stored deck; the result is at the path that `use` is given, as long as that runs.
   * Throws `OfficeError`; rejects with an `AbortError` if given up.
   */
  async convert<T>(
    path: string,
    from: string,
    to: 'pdf' | 'pptx',
    signal: AbortSignal,
    use: (result: string) => Promise<T>,
  ): Promise<T> {
    const ready = await this.claimStandby();
    if (ready) {
      try {
        const made = await this.make(ready, path, from, to, signal);
        return await use(made);
      } catch (error) {
        // What ended while it waited says nothing of the deck: it is tried once more, from the start.
        if (!(error instanceof OfficeError) || error.fault !== 'failed') throw error;
      } finally {
        await clear(ready);
      }
    }
    const home = await this.home();
    try {
      const made = await this.make(home, path, from, to, signal);
      if (!(await exists(this.profile)))
        await this.keepProfile(home.profile).catch(() => undefined);
      return await use(made);
    } finally {
      await rm(home.folder, { recursive: true, force: true });
    }
  }

  /** A deck may come soon: LibreOffice is started, and waits for it a while. */
  prepare(): void {
    this.standby ??= this.start().catch(() => null);
    clearTimeout(this.expiry);
    // What is left of it is cleared away at the next start.
    this.expiry = setTimeout(() => {
      this.close().catch(() => undefined);
    }, STANDBY_MS);
    this.expiry.unref();
  }

  /** Nothing waits any more. */
  async close(): Promise<void> {
    const ready = await this.claimStandby();
    if (ready) await clear(ready);
  }

  private async claimStandby(): Promise<Standby | null> {
    clearTimeout(this.expiry);
    const { standby } = this;
    this.standby = null;
    return standby;
  }

  private async start(): Promise<Standby> {
    const home = await this.home();
    const child = this.spawn(home, ['--nodefault'], true);
    child.once('error', () => undefined);
    return { ...home, child };
  }

  /** A folder for one deck, with a profile in it. */
  private async home(): Promise<{ folder: string; profile: string }> {
    await mkdir(this.work, { recursive: true });
    const folder = await mkdtemp(join(this.work, 'deck-'));
    const profile = join(folder, 'profile');
    if (await exists(this.profile)) await cp(this.profile, profile, { recursive: true });
    else {
      await mkdir(join(profile, 'user'), { recursive: true });
      await writeFile(join(profile, 'user', 'registrymodifications.xcu'), SETTINGS);
    }
    return { folder, profile };
  }

  /** Path of what the deck has become. */
  private async make(
    home: { folder: string; profile: string },
    path: string,
    from: string,
    to: 'pdf' | 'pptx',
    signal: AbortSignal,
  ): Promise<string> {
    const deck = join(home.folder, `deck.${from}`);
    await copyFile(path, deck);
    const out = join(home.folder, 'out');
    await this.run(home, ['--convert-to', to === 'pdf' ? PDF : to, '--outdir', out, deck], signal);
    const [made] = await readdir(out).catch(() => []);
    if (!made) throw new OfficeError('failed');
    return join(out, made);
  }

  /** What stands in for fonts that aren't on this machine, by the name that is asked for. */
  async standIns(names: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const found = new Map<string, string>();
    await Promise.all(
      names.map(async (name) => {
        const family = await said('fc-match', [
          '-f',
          '%{family[0]}',
          name.replace(/[\\:,-]/g, ' '),
        ]);
        if (family && family.toLowerCase() !== name.toLowerCase()) found.set(name, family);
      }),
    );
    return found;
  }

  /** Which letters some font on this machine has, by code point; all, where that can't be known. */
  async letters(): Promise<(code: number) => boolean> {
    const ranges = await said('fc-list', ['-f', '%{charset}\n', ':']);
    if (ranges === '') return () => true;
    // A font a line, as fontconfig writes a set of characters: `20-7e a0 2013-2014`.
    const here = [...new Set(ranges.split(/\s+/))].map((range) => {
      const [from, to = from] = range.split('-').map((code) => parseInt(code, 16));
      return [from!, to!] as const;
    });
    return (code) => here.some(([from, to]) => code >= from && code <= to);
  }

  /** Keeps a profile to start from, whole or not at all; it may lie on another disk. */
  private async keepProfile(profile: string): Promise<void> {
    const next = `${this.profile}.new`;
    await rm(next, { recursive: true, force: true });
    await cp(profile, next, { recursive: true });
    await rename(next, this.profile);
  }

  /** Where one that waits has this profile, it does the work, and this process only asks it to. */
  private spawn(
    { folder, profile }: { folder: string; profile: string },
    args: readonly string[],
    waits = false,
  ): ChildProcess {
    const { command, kilobytes } = this.limits;
    // Where it may be, it has no network of its own: whatever a deck names, nothing is asked for.
    const alone = WITHOUT_NETWORK.map(
      (way) => `if ${way} true 2>/dev/null; then set -- ${way} "$@"; `,
    );
    const closed = `${alone.join('el')}fi; `;
    // One that waits would wait for ever if this process were killed: then what it reads from ends.
    const run = waits ? '"$@" </dev/null & read -r _; kill -KILL 0' : 'exec "$@"';
    return spawn(
      'sh',
      [
        '-c',
        `ulimit -v ${kilobytes}; command -v "$1" >/dev/null || exit 127; ${closed}${run}`,
        'sh',
        command,
        '--headless',
        '--norestore',
        '--nolockcheck',
        `-env:UserInstallation=${pathToFileURL(profile).href}`,
        ...args,
      ],
      // A group of its own: what it starts ends with it.
      {
        detached: true,
        stdio: [waits ? 'pipe' : 'ignore', 'ignore', 'ignore'],
        env: { PATH: process.env['PATH'], HOME: folder },
      },
    );
  }

  private run(
    home: { folder: string; profile: string },
    args: readonly string[],
    signal: AbortSignal,
  ): Promise<void> {
    return new Promise((resolve, reject) => {
      signal.throwIfAborted();
      const child = this.spawn(home, args);
      const end = (why: Error): void => {
        reject(why);
        endGroup(child);
      };
      const giveUp = (): void => end(signal.reason as Error);
      const timer = setTimeout(() => end(new OfficeError('too-slow')), this.limits.ms);
      signal.addEventListener('abort', giveUp);
      child.once('error', () => reject(new OfficeError('missing')));
      child.once('exit', (code) => {
        clearTimeout(timer);
        signal.removeEventListener('abort', giveUp);
        if (code === 127) reject(new OfficeError('missing'));
        else if (code === 0) resolve();
        else reject(new OfficeError('failed'));
      });
    });
  }
}

/** Ends a process and all that it started. */
function endGroup(child: ChildProcess): void {
  try {
    process.kill(-child.pid!, 'SIGKILL');
  } catch {
    // It has ended by itself meanwhile.
  }
}

async function clear({ child, folder }: Standby): Promise<void> {
  if (child.pid !== undefined) endGroup(child);
  await rm(folder, { recursive: true, force: true });
}

function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}

/** What a program says, or nothing where it isn't there. */
function said(command: string, args: readonly string[]): Promise<string> {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'ignore'] });
    let text = '';
    child.stdout.on('data', (part: Buffer) => (text += part.toString()));
    child.once('error', () => resolve(''));
    child.once('close', () => resolve(text.trim()));
  });
}
