/*
 * Runs every test. On a fresh machine it first installs what they need: packages, Debian's
 * Chromium, and the PDF tools that check our files from outside. Ends with one line of counts.
 */
import { spawn } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { install, ROOT, TSC } from './steps.mjs';

const only = process.argv.slice(2);

/** Where the time goes, in seconds, in the order in which things ended. */
const took = [];
const timed = (name, work) => {
  const began = performance.now();
  const done = () => took.push([name, Math.round((performance.now() - began) / 1000)]);
  const result = work();
  return result instanceof Promise ? result.finally(done) : (done(), result);
};

// Programs come from Debian, packages from the registry: neither waits for the other.
const programs = timed('programs of Debian', () =>
  runSuite({ command: ['node', 'scripts/programs.mjs'], early: true }),
);
timed('packages', install);
const { code: programsCode, said: programsSaid } = await programs;
console.log(programsSaid);
if (programsCode !== 0) process.exit(1);

/** How each runner tells its counts: passed and failed from its last words. */
const jasmine = (text) => {
  const m = /(\d+) specs?, (\d+) failures?/.exec(text);
  return m && { passed: m[1] - m[2], failed: Number(m[2]) };
};
const karma = (text) => {
  const last = [...text.matchAll(/Executed (\d+) of \d+(?: \((\d+) FAILED\))?/g)].at(-1);
  return last && { passed: last[1] - (last[2] ?? 0), failed: Number(last[2] ?? 0) };
};
const playwright = (text) => {
  const count = (word) => Number(new RegExp(`(\\d+) ${word}`).exec(text)?.[1] ?? 0);
  const failed = count('failed') + count('flaky') + count('did not run') + count('interrupted');
  return /\d+ (passed|failed)/.test(text) && { passed: count('passed'), failed };
};

/** Lines of a failed suite that are told once more at the end: what is read first. */
const TOLD = 120;

/** What a runner says of what failed; of one that ended before it could, its last words. */
function failures(text) {
  const lines = text
    .split('\n')
    .filter((line) => line.trim() !== '' && !/^npm warn|^\s+at |Stack:$/.test(line));
  const first = lines.findIndex((line) => /^Failures:|FAILED$|^\s+1\) |✖|error/.test(line));
  const told = first >= 0 ? lines.slice(first, first + TOLD) : lines.slice(-TOLD);
  return [...told.map((line) => line.slice(0, 300)), ...screens(text)].join('\n');
}

/** What stood on the screen where a story failed, as Playwright wrote it down. */
function screens(text) {
  const files = new Set([...text.matchAll(/Error Context: (\S+)/g)].map(([, file]) => file));
  return [...files].flatMap((file) => {
    try {
      return [`-- ${file}`, ...readFileSync(join(ROOT, 'e2e', file), 'utf8').split('\n')].slice(
        0,
        TOLD,
      );
    } catch {
      return [];
    }
  });
}

/** A check that passes or fails as a whole. */
const whole = (_text, code) => (code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });

/** Specs of the server that say how long something may take: nothing else runs beside them. */
const TIMED = [
  'live/flood.spec.js',
  'live/mutations.spec.js',
  'workers/costly-files.spec.js',
  'workers/workers.spec.js',
];

/** Into how many runs the specs of the server are dealt: each loads all that servers are made of once. */
const SERVER_RUNS = 4;

/** Specs of the server: dealt to a few runs, but for those that measure; domain by domain where they are asked for by name. */
function serverSuites() {
  const root = join(ROOT, 'apps/server/src');
  const all = readdirSync(root, { recursive: true })
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => file.replace(/\.ts$/, '.js'))
    .sort();
  const suite = (name, files, beside) => ({
    name,
    beside,
    needsServer: true,
    cwd: 'apps/server',
    command: [
      ...['npx', 'jasmine', '--config=jasmine.json'],
      ...files.map((file) => `dist/${file}`),
    ],
    counts: jasmine,
  });
  const others = all.filter((file) => !TIMED.includes(file));
  if (only.length > 0) {
    const domains = new Set(all.map((file) => file.split('/')[0]));
    return [...domains].flatMap((domain) => {
      const of = (files) => files.filter((file) => file.startsWith(`${domain}/`));
      return [
        [others, true],
        [TIMED, false],
      ]
        .filter(([files]) => of(files).length > 0)
        .map(([files, beside]) => suite(`server/${domain}`, of(files), beside));
    });
  }
  const runs = Array.from({ length: SERVER_RUNS }, (_, run) =>
    suite(
      `server ${run + 1} of ${SERVER_RUNS}`,
      others.filter((_name, i) => i % SERVER_RUNS === run),
      true,
    ),
  );
  return [...runs, suite('server, timed', TIMED, false)];
}

/** A step of `steps.mjs`, in a process of its own: others go on meanwhile. */
const step = (name) => [
  'node',
  '-e',
  `import('./scripts/steps.mjs').then((steps) => steps.${name}())`,
];

/**
 * Those that measure no times run `beside` one another, two at once: a machine has two processors. What needs nothing
 * that is built runs `early`, beside the building of packages; what `needsServer` waits until that is built.
 */
const SUITES = [
  // What stories open. Nothing else waits for it.
  { name: 'site', beside: true, command: step('buildSite'), counts: whole },
  { name: 'lint', beside: true, command: ['npx', 'eslint', '.'], counts: whole },
  { name: 'promises', beside: true, command: ['npx', 'oxlint'], counts: whole },
  {
    name: 'format',
    early: true,
    command: ['npx', 'prettier', '--check', '.'],
    counts: whole,
  },
  {
    name: 'licences',
    early: true,
    command: ['node', 'scripts/third-party.mjs', '--check'],
    counts: whole,
  },
  { name: 'docs', early: true, command: ['node', 'scripts/docs.mjs'], counts: whole },
  // Benches are run now and then: what they ask of the code is looked at each time.
  {
    name: 'benches',
    beside: true,
    needsServer: true,
    command: [...TSC, 'bench'],
    counts: whole,
  },
  { name: 'imports', beside: true, command: ['npm', 'run', '-s', 'imports'], counts: whole },
  {
    name: 'core',
    beside: true,
    cwd: 'packages/core',
    command: ['npx', 'jasmine', '--config=jasmine.json'],
    counts: jasmine,
  },
  {
    name: 'formats',
    beside: true,
    cwd: 'packages/formats',
    command: ['npx', 'jasmine', '--config=jasmine.json'],
    counts: jasmine,
  },
  ...serverSuites(),
  {
    name: 'web',
    beside: true,
    command: ['npx', 'ng', 'test', 'web', '--watch=false', '--progress=false'],
    env: { CHROME_BIN: '/usr/bin/chromium' },
    counts: karma,
  },
  // Stories wait for one another's browsers most of the time; those that measure something are told alone.
  {
    name: 'e2e',
    cwd: 'e2e',
    command: ['npx', 'playwright', 'test', '--workers=2', '--grep-invert', '@alone'],
    counts: playwright,
  },
  {
    name: 'e2e-alone',
    cwd: 'e2e',
    command: ['npx', 'playwright', 'test', '--grep', '@alone'],
    counts: playwright,
  },
];

function runSuite({ command: [command, ...args], cwd = '.', env = {}, beside, early }) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: join(ROOT, cwd),
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let text = '';
    const hear = (chunk) => {
      text += chunk;
      // What runs beside others is told when it is over.
      if (!beside && !early) process.stdout.write(chunk);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('close', (code) =>
      resolve({ code, text: stripVTControlCharacters(text), said: beside || early ? text : '' }),
    );
  });
}

let passed = 0;
let failed = 0;
const wrong = [];

async function take(suite) {
  const head = `\n== ${suite.name}`;
  if (!suite.beside && !suite.early) console.log(head);
  const { code, text, said } = await timed(suite.name, () => runSuite(suite));
  if (suite.beside || suite.early) console.log(`${head}\n${said}`);
  const counts = suite.counts(text, code);
  const before = failed;
  passed += counts ? counts.passed : 0;
  failed += counts ? counts.failed : 0;
  // A suite that ended badly has failed, whatever it counted.
  if (code !== 0 && (!counts || counts.failed === 0)) failed += 1;
  if (code === 0 && !counts) failed += 1;
  if (failed > before)
    wrong.push(`\n== ${suite.name}: ${failed - before} failed\n${failures(text)}`);
}

const isWanted = (name) => only.length === 0 || only.some((start) => name.startsWith(start));
const wanted = SUITES.filter(
  ({ name }) =>
    isWanted(name) ||
    (name === 'site' && SUITES.some((one) => one.name.startsWith('e2e') && isWanted(one.name))),
);
const takeAll = async (suites) => {
  for (let suite; (suite = suites.shift());) {
    if (suite.needsServer) await server;
    await take(suite);
  }
};
/** Ends everything where it fails: there is nothing to test. */
const build = async (name, ofWhat) => {
  const { code, said } = await timed(name, () => runSuite({ command: step(ofWhat), beside: true }));
  console.log(said);
  if (code !== 0) process.exit(1);
};
const early = takeAll(wanted.filter((suite) => suite.early));
await build('build of the packages', 'buildPackages');
const server = build('build of the server', 'buildServer');
const beside = wanted.filter((suite) => suite.beside);
// Two lanes: on one the server is built first, on the other what is early comes to its end.
await Promise.all([server.then(() => takeAll(beside)), early.then(() => takeAll(beside))]);
await takeAll(wanted.filter((suite) => !suite.beside && !suite.early));
console.log(`\nseconds: ${took.map(([name, seconds]) => `${name} ${seconds}`).join(', ')}`);
for (const told of wrong) console.log(told);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);
