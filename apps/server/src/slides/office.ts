import { spawn } from 'node:child_process';
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
import { tmpdir } from 'node:os';
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

/** Hidden slides become pages, too: they are held back there. */
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

/**
 * LibreOffice, which turns slides into pages: a process of its own for each deck, with a profile folder
 * of its own and limits of time and memory. Whatever it leaves is cleared away.
 */
export class Office {
  private readonly limits: OfficeLimits;

  /** @param profile folder of a profile that was used before: starting from one takes half the time */
  constructor(
    private readonly profile: string,
    limits: Partial<OfficeLimits> = {},
  ) {
    this.limits = { ...LIMITS, ...limits };
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
    const folder = await mkdtemp(join(tmpdir(), 'cuaderno-office-'));
    try {
      const deck = join(folder, `deck.${from}`);
      await copyFile(path, deck);
      const profile = join(folder, 'profile');
      const known = await exists(this.profile);
      if (known) await cp(this.profile, profile, { recursive: true });
      else {
        await mkdir(join(profile, 'user'), { recursive: true });
        await writeFile(join(profile, 'user', 'registrymodifications.xcu'), SETTINGS);
      }
      const out = join(folder, 'out');
      await this.run(deck, out, profile, to === 'pdf' ? PDF : to, folder, signal);
      const [made] = await readdir(out).catch(() => []);
      if (!made) throw new OfficeError('failed');
      if (!known) await this.keepProfile(profile).catch(() => undefined);
      return await use(join(out, made));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
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

  /** Keeps a profile to start from, whole or not at all; it may lie on another disk. */
  private async keepProfile(profile: string): Promise<void> {
    const next = `${this.profile}.new`;
    await rm(next, { recursive: true, force: true });
    await cp(profile, next, { recursive: true });
    await rename(next, this.profile);
  }

  private run(
    deck: string,
    out: string,
    profile: string,
    form: string,
    home: string,
    signal: AbortSignal,
  ): Promise<void> {
    const { command, kilobytes, ms } = this.limits;
    return new Promise((resolve, reject) => {
      signal.throwIfAborted();
      const child = spawn(
        'sh',
        [
          '-c',
          `ulimit -v ${kilobytes}; command -v "$1" >/dev/null || exit 127; exec "$@"`,
          'sh',
          command,
          '--headless',
          '--norestore',
          '--nolockcheck',
          `-env:UserInstallation=${pathToFileURL(profile).href}`,
          '--convert-to',
          form,
          '--outdir',
          out,
          deck,
        ],
        // A group of its own: what it starts ends with it.
        { detached: true, stdio: 'ignore', env: { PATH: process.env['PATH'], HOME: home } },
      );
      const end = (why: Error): void => {
        reject(why);
        try {
          process.kill(-child.pid!, 'SIGKILL');
        } catch {
          // It has ended by itself meanwhile.
        }
      };
      const giveUp = (): void => end(signal.reason as Error);
      const timer = setTimeout(() => end(new OfficeError('too-slow')), ms);
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
