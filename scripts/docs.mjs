/*
 * Says which documents name a file that isn't there: links, and paths of our own code between backticks. What is told
 * of a test that has moved can't be looked up by anyone.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT } from './steps.mjs';

const files = execFileSync('git', ['ls-files'], { cwd: ROOT, encoding: 'utf8' }).split('\n');
const documents = files.filter((name) => name.endsWith('.md'));

/** Whether a path, which may leave out where it begins and `src/` or `src/app/`, is one of ours. */
function isKnown(path) {
  const [first, ...rest] = path.split('/');
  const ends = [
    `/${path}`,
    `/${first}/src/${rest.join('/')}`,
    `/${first}/src/app/${rest.join('/')}`,
  ];
  return files.some((name) => ends.some((end) => `/${name}`.endsWith(end)));
}

const missing = documents.flatMap((document) => {
  const text = readFileSync(join(ROOT, document), 'utf8');
  const links = [...text.matchAll(/\]\(([^)#\s]+)[^)]*\)/g)]
    .map(([, to]) => to)
    .filter((to) => !/^[a-z]+:/.test(to) && !existsSync(join(ROOT, dirname(document), to)));
  const named = [...text.matchAll(/`([a-z][\w-]*(?:\/[\w.-]+)*\.(?:spec|ts|mjs|html|scss))`/g)]
    .map(([, path]) => (path.endsWith('.spec') ? `${path}.ts` : path))
    .filter((path) => !isKnown(path));
  return [...links, ...named].map((what) => `${document}: ${what} isn’t there`);
});
for (const line of missing) console.log(line);
process.exit(missing.length > 0 ? 1 : 0);
