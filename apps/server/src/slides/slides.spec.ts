import { itemsOn, pagesInOrder, plainText } from '@cuaderno/core';
import type { Board } from '@cuaderno/core';
import { film, pptxOf, silentWav } from '@cuaderno/formats/testing';
import { execFileSync, spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { Office } from './office.js';
import type { JobState } from './queue.js';
import type { ImportReport } from '@cuaderno/formats/slides-in';

/** Real decks: templates that come with Debian’s LibreOffice. */
const TEMPLATES = '/usr/lib/libreoffice/share/template/common/presnt';
const folder = mkdtempSync(join(tmpdir(), 'cuaderno-slides-'));

/** A deck of another kind, made by LibreOffice itself. */
function converted(path: string, to: string): Buffer {
  const profile = `-env:UserInstallation=file://${folder}/profile`;
  const out = join(folder, to);
  execFileSync('soffice', ['--headless', profile, '--convert-to', to, '--outdir', out, path], {
    stdio: 'ignore',
    timeout: 60_000,
  });
  return readFileSync(join(out, path.replace(/^.*\//, '').replace(/\.\w+$/, `.${to}`)));
}

describe('bringing slides', () => {
  let house: House;
  const open = async (office = {}): Promise<void> => {
    house = await House.open('slides', { office });
  };
  afterEach(() => house.close());

  const begin = async (bytes: Uint8Array, name = 'Tides.pptx'): Promise<string> => {
    const response = await house.tutor.upload(house.course.id, name, Buffer.from(bytes));
    expect(response.statusCode).withContext(response.body).toBe(202);
    return response.json<{ job: string }>().job;
  };
  const stateOf = async (job: string): Promise<JobState> =>
    (await house.tutor.get(`/imports/${job}`)).json();
  /** How it ended. */
  const end = async (bytes: Uint8Array, name?: string): Promise<JobState> => {
    const job = await begin(bytes, name);
    await house.app.importQueue.settled();
    return stateOf(job);
  };
  const boardOf = async (state: JobState): Promise<Board> => {
    if (state.kind !== 'done') throw new Error(JSON.stringify(state));
    return (await house.app.bus.host(state.board.id))!.between((board) => board);
  };
  const fault = async (bytes: Uint8Array): Promise<string> => {
    const state = await end(bytes);
    return state.kind === 'failed' ? state.problem.type.replace('urn:cuaderno:', '') : state.kind;
  };
  const boards = async (): Promise<number> =>
    (await house.app.boards.ofCourse(house.course.id)).length;

  it('keeps titles, notes, what is hidden, sounds and films, and says what changed', async () => {
    await open();
    const waves = await film('webm');
    const deck = pptxOf([
      { title: 'High water', notes: ['Ask Ida first.'], font: 'Wholly Unknown Sans' },
      // A cuneiform sign (U+12000), of which no font here knows.
      { title: 'Springs \u{12000}', hidden: true, animated: true },
      {
        title: 'Listen',
        media: {
          name: 'horn.wav',
          bytes: silentWav(),
          at: [914_400, 1_828_800, 2_743_200, 914_400],
          kind: 'audio',
        },
      },
      {
        title: 'Look',
        media: {
          name: 'waves.webm',
          bytes: waves,
          at: [0, 0, 6_096_000, 3_429_000],
          kind: 'video',
        },
      },
      {
        title: 'Gone',
        media: {
          name: 'old.mp4',
          bytes: new TextEncoder().encode('no film at all'),
          at: [0, 0, 914_400, 914_400],
          kind: 'video',
        },
      },
    ]);
    const state = await end(deck);
    const pages = pagesInOrder(await boardOf(state));
    expect(pages.map(({ name }) => name)).toEqual([
      'High water',
      'Springs \u{12000}',
      'Listen',
      'Look',
      'Gone',
    ]);
    expect(plainText(pages[0]!.privateNotes!)).toBe('Ask Ida first.');
    expect(pages.map(({ hidden }) => hidden === true)).toEqual([false, true, false, false, false]);
    // 12,192,000 × 6,858,000 EMU is 16:9 (ECMA-376), and poppler says so of the pages, too.
    for (const { width, height } of pages) expect(width / height).toBeCloseTo(16 / 9, 2);
    const [sound] = itemsOn(pages[2]!);
    const [waving] = itemsOn(pages[3]!);
    if (sound?.kind !== 'media' || waving?.kind !== 'media') throw new Error('they lie there');
    const scale = pages[2]!.width / 960;
    expect([sound.medium, waving.medium]).toEqual(['sound', 'film']);
    expect(sound.frame.x).toBeCloseTo(72 * scale, 1);
    expect(sound.frame.width).toBeCloseTo(216 * scale, 1);
    expect((await house.tutor.get(`/files/${waving.file}`)).rawPayload.length).toBe(waves.length);
    expect(itemsOn(pages[4]!)).toEqual([]);
    // The pages themselves hold none of it: who may see a page may not have what is hidden on it.
    const [first] = pages;
    if (first?.paper.kind !== 'pdf') throw new Error('it is printed');
    const pdf = house.app.files.path(first.paper.file);
    execFileSync('qpdf', ['--check', pdf]);
    const inside = execFileSync('qpdf', ['--qdf', '--object-streams=disable', pdf, '-'], {
      maxBuffer: 1 << 26,
    });
    expect(inside.includes('EmbeddedFile')).toBeFalse();
    expect(inside.includes('/Screen')).toBeFalse();
    expect(inside.includes(Buffer.from(silentWav()).subarray(0, 40))).toBeFalse();

    const { report, seen } = (
      await house.tutor.get(`/boards/${(state as { board: { id: string } }).board.id}/report`)
    ).json<{ report: ImportReport; seen: boolean }>();
    expect(seen).toBeFalse();
    expect(report.slides).toBe(5);
    const of = (n: number) => report.changed.find(({ number }) => number === n);
    const unknown = report.fonts.find(({ asked }) => asked === 'Wholly Unknown Sans');
    expect(unknown?.slides).toEqual([1]);
    expect(of(1)).toBeUndefined();
    expect(of(2)!.letters).toEqual(['\u{12000}']);
    expect([report.named, report.noted]).toEqual([5, 1]);
    expect([of(2)!.hidden, of(2)!.flattened]).toEqual([true, true]);
    expect(of(3)!.media).toEqual([{ name: 'horn.wav', problem: null }]);
    expect(of(5)!.media[0]!.problem).toContain('can’t go on a page');
  });

  it('takes real decks, as ODP, PPTX and PPT, with pages as large as theirs', async () => {
    await open();
    const [name] = readdirSync(TEMPLATES).sort();
    const template = join(TEMPLATES, name!);
    for (const kind of ['odp', 'pptx', 'ppt']) {
      const bytes = converted(template, kind);
      const state = await end(bytes, `Template.${kind}`);
      const pages = pagesInOrder(await boardOf(state));
      const pdf = join(folder, `${kind}.pdf`);
      const [first] = pages;
      if (first?.paper.kind !== 'pdf') throw new Error('it is printed');
      writeFileSync(pdf, readFileSync(house.app.files.path(first.paper.file)));
      const info = execFileSync('pdfinfo', [pdf], { encoding: 'utf8' });
      expect(info)
        .withContext(kind)
        .toMatch(new RegExp(`Pages:\\s+${pages.length}\\b`));
      const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+)/.exec(info)!;
      expect(first.width).withContext(kind).toBeCloseTo(Number(width), 0);
      expect(first.height).withContext(kind).toBeCloseTo(Number(height), 0);
    }
  });

  it('one deck at a time, and any can be given up', async () => {
    await open();
    const deck = pptxOf([{ title: 'Ebb' }]);
    const before = await boards();
    const [a, b, c] = [await begin(deck), await begin(deck), await begin(deck)];
    expect((await stateOf(a)).kind).toBe('converting');
    expect(await stateOf(b)).toEqual({ kind: 'waiting', before: 1 });
    expect(await stateOf(c)).toEqual({ kind: 'waiting', before: 2 });
    await house.tutor.post(`/imports/${a}/cancel`);
    await house.tutor.post(`/imports/${b}/cancel`);
    await house.app.importQueue.settled();
    expect((await stateOf(c)).kind).toBe('done');
    expect(await boards()).toBe(before + 1);
    const stranger = house.visitor();
    expect((await stranger.get(`/imports/${c}`)).statusCode).toBe(401);
  });

  it('says plainly what to do where LibreOffice is missing, hangs or dies', async () => {
    const script = (name: string, lines: string): string => {
      const path = join(folder, name);
      writeFileSync(path, `#!/bin/sh\n${lines}\n`);
      chmodSync(path, 0o755);
      return path;
    };
    const deck = pptxOf([{ title: 'Ebb' }]);
    await open({ command: 'there-is-no-such-office' });
    expect(await fault(deck)).toBe('deck-no-converter');
    await house.close();
    await open({ command: script('hangs', 'sleep 600'), ms: 300 });
    expect(await fault(deck)).toBe('deck-too-slow');
    await house.close();
    await open({ command: script('dies', 'kill -SEGV $$') });
    expect(await fault(deck)).toBe('deck-broken');
    await house.close();
    await open({ command: script('idle', 'exit 0') });
    expect(await fault(deck)).toBe('deck-broken');
    expect(await boards()).toBe(1);
    expect(readdirSync(`${house.folder}/office-profile-work`)).toEqual([]);
  });

  it('refuses what is locked, cut off, or a trap, before anything opens it', async () => {
    await open({ command: 'it-must-not-be-asked' });
    const refused = async (bytes: Uint8Array): Promise<string> => {
      const response = await house.tutor.upload(house.course.id, 'x.pptx', Buffer.from(bytes));
      return response.json<{ type?: string }>().type?.replace('urn:cuaderno:', '') ?? 'taken';
    };
    const deck = pptxOf([{ title: 'Ebb' }]);
    expect(await refused(deck.subarray(0, deck.length - 30))).toBe('zip-broken');
    const locked = Buffer.concat([
      Buffer.from('d0cf11e0a1b11ae1', 'hex'),
      Buffer.alloc(600),
      Buffer.from('EncryptedPackage', 'utf16le'),
    ]);
    expect(await refused(locked)).toBe('deck-locked');
    const kept = readdirSync(house.app.files.folder, { recursive: true, withFileTypes: true });
    expect(kept.filter((entry) => entry.isFile())).toEqual([]);
    const bomb = pptxOf([
      {
        title: 'x',
        media: {
          name: 'b.mp4',
          bytes: new Uint8Array(30_000_000),
          at: [0, 0, 1, 1],
          kind: 'video',
        },
      },
    ]);
    expect(await refused(bomb)).toBe('zip-too-large');
  });
});

describe('LibreOffice', () => {
  it('may be started ahead of its deck, waits for one alone, and is no loss if it ends', async () => {
    const left = (): string[] => readdirSync(join(folder, 'office-work'));
    const office = new Office(join(folder, 'office'));
    const path = join(folder, 'deck.pptx');
    writeFileSync(path, pptxOf([{ title: 'Ebb' }, { title: 'Flow' }]));
    const pages = (): Promise<string> =>
      office.convert(path, 'pptx', 'pdf', new AbortController().signal, async (made) =>
        execFileSync('pdftotext', [made, '-']).toString().replace(/\s+/g, ' ').trim(),
      );
    for (let i = 0; i < 2; i++) {
      office.prepare();
      office.prepare();
      expect(await pages()).toContain('Ebb');
    }
    expect(await pages()).toContain('Flow');
    expect(left()).toEqual([]);
    office.prepare();
    await office.close();
    expect(left()).toEqual([]);

    // One that dies as soon as it is there, and does its work only when it is asked by itself.
    const script = join(folder, 'dies-first');
    const flag = join(folder, 'died');
    writeFileSync(
      script,
      `#!/bin/sh\n[ -e ${flag} ] && exec soffice "$@"\ntouch ${flag}\nexit 1\n`,
    );
    chmodSync(script, 0o755);
    const frail = new Office(join(folder, 'office'), { command: script });
    frail.prepare();
    const made = await frail.convert(path, 'pptx', 'pdf', new AbortController().signal, (pdf) =>
      Promise.resolve(existsSync(pdf)),
    );
    expect(made).toBeTrue();
    await frail.close();
    expect(left()).toEqual([]);
  });

  it('doesn’t outlive a server that is killed, and what that left is cleared away', async () => {
    const profile = join(folder, 'killed');
    const module = new URL('./office.js', import.meta.url).href;
    const server = spawn(process.execPath, [
      '--input-type=module',
      '-e',
      `import { Office } from '${module}'; new Office('${profile}').prepare(); setInterval(() => 0, 1000);`,
    ]);
    const running = (): boolean =>
      readdirSync('/proc')
        .filter((name) => /^\d+$/.test(name))
        .some((pid) => {
          try {
            return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`file://${profile}-work`);
          } catch {
            return false;
          }
        });
    await until(running);
    server.kill('SIGKILL');
    await until(() => !running());
    expect(readdirSync(`${profile}-work`).length).toBe(1);
    await new Office(profile).tidy();
    expect(existsSync(`${profile}-work`)).toBeFalse();
  });
});

async function until(is: () => boolean): Promise<void> {
  while (!is()) await new Promise((next) => setTimeout(next, 20));
}
