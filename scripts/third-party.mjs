/*
 * Writes THIRD_PARTY.md: every package that ships with Cuaderno, fonts and data included, with its licence, as the lock
 * file has them. `--check` says whether it is up to date, and exits 1 if it isn't.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import * as prettier from 'prettier';
import { ROOT } from './steps.mjs';

const FILE = join(ROOT, 'THIRD_PARTY.md');
const { packages } = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));

/** What the package itself says where the lock file says nothing; older packages have a list of licences. */
function licenceOf(path, { license }) {
  if (license) return license;
  const own = join(ROOT, path, 'package.json');
  if (!existsSync(own)) return 'not said';
  const { license: said, licenses = [] } = JSON.parse(readFileSync(own, 'utf8'));
  return said?.type ?? said ?? (licenses.map(({ type }) => type).join(', ') || 'not said');
}

const shipped = Object.entries(packages)
  .filter(([path, { dev, devOptional, link, optional, os }]) => {
    const ours = !path.includes('node_modules/') || link;
    // Binaries for other machines are named by the package that asks for them.
    return !ours && !dev && !devOptional && !(optional && os);
  })
  .map(([path, entry]) => ({
    name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
    version: entry.version,
    licence: licenceOf(path, entry),
  }))
  .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version, 'en'));
const once = [...new Map(shipped.map((one) => [`${one.name}@${one.version}`, one])).values()];

const isFont = ({ name }) => name.startsWith('@fontsource');
const table = (list) => [
  '| Package | Version | Licence |',
  '| --- | --- | --- |',
  ...list.map(({ name, version, licence }) => `| ${name} | ${version} | ${licence} |`),
];
const text = [
  '# What others made',
  '',
  'Packages that ship with Cuaderno and their licences, made from the lock file by `npm run third-party`. Each package has',
  'its licence with it, under `node_modules` and where it is served.',
  '',
  '## Fonts',
  '',
  ...table(once.filter(isFont)),
  '',
  '## Code and data',
  '',
  ...table(once.filter((one) => !isFont(one))),
  '',
].join('\n');
const options = await prettier.resolveConfig(FILE);
const pretty = await prettier.format(text, { ...options, filepath: FILE });

if (process.argv.includes('--check')) {
  const upToDate = existsSync(FILE) && readFileSync(FILE, 'utf8') === pretty;
  if (!upToDate) console.error('THIRD_PARTY.md is not up to date: run `npm run third-party`.');
  process.exit(upToDate ? 0 : 1);
}
writeFileSync(FILE, pretty);
console.log(`${once.length} packages`);
