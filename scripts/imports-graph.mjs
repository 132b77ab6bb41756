/*
 * Writes the graph of folders of the packages and which imports which into docs/imports.md, as Mermaid, from what
 * dependency-cruiser finds.
 */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './steps.mjs';

/** What is drawn, each with the folder whose parts are its nodes. */
const PARTS = [
  'packages/core/src',
  'packages/formats/src',
  'apps/server/src',
  'apps/web/src/app',
  'apps/web/src/app/board',
];

function edgesOf(part) {
  const found = JSON.parse(
    execFileSync(
      'npx',
      ['depcruise', '--config', '.dependency-cruiser.cjs', '--output-type', 'json', part],
      { cwd: ROOT, maxBuffer: 1 << 28 },
    ),
  );
  const folderOf = (path) => new RegExp(`^${part}/([^/]+)/`).exec(path)?.[1] ?? null;
  const edges = new Set();
  for (const { source, dependencies } of found.modules)
    for (const { resolved } of dependencies) {
      const [from, to] = [folderOf(source), folderOf(resolved)];
      if (from && to && from !== to) edges.add(`${from} ${to}`);
    }
  return [...edges].map((edge) => edge.split(' ')).sort();
}

/** Without those that follow from others: where a imports b and b imports c, that a imports c, too, is left out. */
function reduced(edges) {
  const next = new Map();
  for (const [from, to] of edges) next.set(from, [...(next.get(from) ?? []), to]);
  const reaches = (from, to, without) =>
    (next.get(from) ?? []).some((one) => one !== without && (one === to || reaches(one, to)));
  return edges.filter(([from, to]) => !reaches(from, to, to));
}

const drawn = PARTS.map((part) => {
  const edges = edgesOf(part);
  const lines = reduced(edges).map(([from, to]) => `  ${from} --> ${to}`);
  return `## ${part}\n\n${edges.length} imports between folders, no circle; those that follow from others are left out.\n\n\`\`\`mermaid\nflowchart TD\n${lines.join('\n')}\n\`\`\`\n`;
});
writeFileSync(
  join(ROOT, 'docs/imports.md'),
  `# Who imports whom\n\nMade by \`npm run imports:graph\`, from what dependency-cruiser finds; \`npm run imports\`, which the tests run, fails on a\ncircle of folders.\n\n${drawn.join('\n')}`,
);
