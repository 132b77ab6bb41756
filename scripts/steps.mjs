/* What the scripts beside this share. Plain JavaScript: it runs before anything is installed. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = resolve(fileURLToPath(import.meta.url), '../..');

export function run(command, args, { quiet = false, env = {}, allowFailure = false } = {}) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
    maxBuffer: 1 << 28,
  });
  if (result.status !== 0 && !allowFailure) {
    if (quiet) process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}`);
    console.error(`This step failed: ${command} ${args.join(' ')}`);
    process.exit(1);
  }
  return result;
}

function* filesIn(folder) {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist', '.angular'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else if (!entry.name.endsWith('.tsbuildinfo')) yield path;
  }
}

/** A stamp of these files' paths, sizes and times: it changes when any of them does. */
function stampOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths) {
    const full = join(ROOT, path);
    const files = existsSync(full) && statSync(full).isDirectory() ? [...filesIn(full)] : [full];
    for (const file of files.sort()) {
      if (existsSync(file)) hash.update(`${file}\0`).update(readFileSync(file));
    }
  }
  return hash.digest('hex');
}

/** Does a step unless nothing it depends on has changed since it was last done. */
export function once(name, paths, step) {
  const folder = join(ROOT, '.build');
  const mark = join(folder, name);
  const stamp = stampOf(paths);
  if (existsSync(mark) && readFileSync(mark, 'utf8') === stamp) return;
  step();
  mkdirSync(folder, { recursive: true });
  writeFileSync(mark, stamp);
}

export function install() {
  const manifests = ['package.json', 'package-lock.json'];
  for (const group of ['packages', 'apps'])
    for (const name of readdirSync(join(ROOT, group)))
      manifests.push(`${group}/${name}/package.json`);
  manifests.push('e2e/package.json', 'bench/package.json');
  const missing = !existsSync(join(ROOT, 'node_modules', '.package-lock.json'));
  const step = () => {
    console.log('Installing packages…');
    run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
      env: { PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' },
    });
  };
  if (missing) step();
  once('install', manifests, () => {
    if (!missing) step();
  });
}

/**
 * Makes JavaScript of the packages and the server and checks their types, in two fifths of the time of the compiler that
 * Angular is bound to. What comes out is the same.
 */
export const TSC = ['node', 'node_modules/typescript-7/bin/tsc', '-b'];

export function compile(...projects) {
  const [command, ...args] = TSC;
  run(command, [...args, ...projects]);
}

/** What the server and the web application are both made of. */
export function buildPackages() {
  once('packages', ['tsconfig.base.json', 'packages'], () => {
    console.log('Building the packages…');
    compile('packages/contract', 'packages/formats');
  });
}

export function buildServer() {
  once('server', ['tsconfig.base.json', 'packages', 'apps/server'], () => {
    console.log('Building the server…');
    compile('apps/server');
  });
}

export function buildSite() {
  once('site', ['angular.json', 'packages', 'apps/web', 'package-lock.json'], () => {
    console.log('Building the web application…');
    run('npx', ['ng', 'build', 'web', '--progress=false'], { quiet: true });
    run('node', ['scripts/merge-chunks.mjs', 'apps/web/dist/browser']);
    run('node', ['scripts/compress.mjs', 'apps/web/dist/browser']);
  });
}

/** Turns slides into pages, with fonts as wide as those that decks mostly ask for. */
export const OFFICE = {
  command: 'soffice',
  name: 'libreoffice-impress-nogui fonts-crosextra-carlito fonts-crosextra-caladea fonts-liberation',
};

/** Letters of Chinese, Japanese and Korean for LibreOffice, which knows the fonts of the machine and no others. */
export const OFFICE_LETTERS = {
  command: 'test',
  args: ['-f', '/usr/share/fonts/truetype/droid/DroidSansFallbackFull.ttf'],
  name: 'fonts-droid-fallback',
};

/**
 * Installs Debian packages that are missing; says what to do where it may not, and goes on only if
 * they are `optional`.
 */
export function debian(packages, { optional = false } = {}) {
  const missing = packages.filter(({ command, args = [] }) => {
    // With arguments, it isn't enough that the command is there: it must do what they ask.
    const [asked, words] = args.length > 0 ? [command, args] : ['which', [command]];
    return run(asked, words, { quiet: true, allowFailure: true }).status !== 0;
  });
  if (missing.length === 0) return;
  const names = missing.flatMap(({ name }) => name.split(' '));
  console.log(`Installing ${names.join(', ')}…`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    return run(command, rest, {
      quiet: true,
      allowFailure: true,
      env: { DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  apt('update', '-qq');
  const result = apt('install', '-y', '-qq', '--no-install-recommends', ...names);
  if (result.status !== 0 && optional) {
    console.log(`Without ${names[0]} some things can’t be done; the tutor is told which.`);
  } else if (result.status !== 0) {
    console.error(
      `These Debian packages are needed and could not be installed: ${names.join(', ')}.`,
    );
    console.error(`Install them with: apt-get install ${names.join(' ')}`);
    process.exit(1);
  }
}
