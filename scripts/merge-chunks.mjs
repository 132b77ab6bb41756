/*
 * Makes few files of many. The build splits the application wherever two screens share something, which gives hundreds
 * of files of a few hundred bytes: each is a request, and over a thin line a visit waits for requests longer than for
 * bytes. Small ones are laid into others that are needed whenever they are; nothing is fetched that wasn't before, but
 * for some kilobytes, and no two files import one another in a circle.
 */
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { rollup } from 'rollup';

/** What is smaller is laid into another, in bytes before compression. */
const SMALL = 24_000;
/** What may be fetched without need by all entries together for one file less, in bytes before compression. */
const WASTE = 60_000;

/** The name of the group that is there from the start. */
const START = 'main';

const isWithin = (some, all) => [...some].every((one) => all.has(one));

/** All that comes along with a module, itself among it: what it imports, and so on. */
function closureOf(module, importsOf) {
  const found = new Set();
  const left = [module];
  for (let next; (next = left.pop()) !== undefined;) {
    if (found.has(next)) continue;
    found.add(next);
    left.push(...importsOf(next));
  }
  return found;
}

/**
 * What is there already when an entry is fetched: what is loaded wherever it is asked for, from whichever entry that
 * is. By narrowing, from everything, until nothing changes.
 */
function thereBefore(entries, closures, modules, start) {
  const before = new Map(entries.map((entry) => [entry, new Set(modules.keys())]));
  const askedBy = (entry) => [...modules].filter(([, { asks }]) => asks.includes(entry));
  const askers = new Map(entries.map((entry) => [entry, askedBy(entry).map(([id]) => id)]));
  for (let changed = true; changed;) {
    changed = false;
    for (const entry of entries) {
      let there = before.get(entry);
      for (const asker of askers.get(entry)) {
        if (start.has(asker)) there = new Set([...there].filter((one) => start.has(one)));
        for (const other of entries) {
          const closure = closures.get(other);
          if (!closure.has(asker) || start.has(asker)) continue;
          const loaded = before.get(other);
          there = new Set(
            [...there].filter((one) => start.has(one) || closure.has(one) || loaded.has(one)),
          );
        }
      }
      if (there.size < before.get(entry).size) {
        before.set(entry, there);
        changed = true;
      }
    }
  }
  return before;
}

/**
 * Which modules lie in one file.
 * @param modules by id: their size in bytes, what they import, and what they ask for when it is needed
 * @returns the name of its group for each module
 */
function groupsOf(modules, first) {
  const importsOf = (id) => modules.get(id).imports;
  const start = closureOf(first, importsOf);
  const entries = [...new Set([...modules.values()].flatMap(({ asks }) => asks))].filter(
    (entry) => !start.has(entry),
  );
  const closures = new Map(entries.map((entry) => [entry, closureOf(entry, importsOf)]));
  const before = thereBefore(entries, closures, modules, start);

  const groupOf = new Map();
  const groups = new Map();
  for (const [id, { size }] of modules) {
    const name = start.has(id) ? START : id;
    groupOf.set(id, name);
    const group = groups.get(name) ?? {
      ...{ members: [], size: 0, isEntry: entries.includes(id) },
      // The entries with which it is fetched, and those with which it is there, fetched or not.
      ...{ fetched: new Set(), there: new Set() },
    };
    group.members.push(id);
    group.size += size;
    for (const entry of entries) {
      const comes = closures.get(entry).has(id);
      if (comes && !before.get(entry).has(id)) group.fetched.add(entry);
      if (comes || before.get(entry).has(id)) group.there.add(entry);
    }
    groups.set(name, group);
  }

  const importedBy = (name) => {
    const imported = groups.get(name).members.flatMap(importsOf);
    return new Set(imported.map((id) => groupOf.get(id)).filter((one) => one !== name));
  };
  /** Whether one group imports another by way of a third: laid together, they would be a circle. */
  const leadsTo = (from, to) => {
    const left = [...importedBy(from)].filter((name) => name !== to);
    return left.some((name) => closureOf(name, importedBy).has(to));
  };
  /** What a group has beside it whenever it is there, so that to import it costs nothing. */
  const isBeside = (name, target) =>
    name === START ||
    name === target ||
    isWithin(groups.get(target).fetched, groups.get(name).there);

  const askersOf = (entry) => [
    ...new Set(
      [...modules].filter(([, { asks }]) => asks.includes(entry)).map(([id]) => groupOf.get(id)),
    ),
  ];
  const targetOf = (name) => {
    const group = groups.get(name);
    // An entry goes to the only one that asks for it.
    const asked = group.isEntry ? askersOf(group.members[0]) : null;
    const candidates = asked ? (asked.length === 1 ? asked : []) : groups.keys();
    let best = null;
    let least = WASTE;
    for (const target of candidates) {
      if (target === name || target === START) continue;
      const into = groups.get(target);
      if (!group.isEntry && !isWithin(group.fetched, into.there)) continue;
      const inVain = [...into.fetched].filter((entry) => !group.there.has(entry));
      const waste = inVain.length * group.size;
      if (waste > least || (best !== null && waste === least)) continue;
      if (![...importedBy(name)].every((one) => isBeside(one, target))) continue;
      if (leadsTo(target, name) || leadsTo(name, target)) continue;
      [best, least] = [target, waste];
    }
    return best;
  };

  for (let changed = true; changed;) {
    changed = false;
    for (const [name, group] of [...groups].sort(([, a], [, b]) => a.size - b.size)) {
      if (name === START || group.size > SMALL) continue;
      const target = targetOf(name);
      if (target === null) continue;
      const into = groups.get(target);
      into.members.push(...group.members);
      into.size += group.size;
      for (const id of group.members) groupOf.set(id, target);
      groups.delete(name);
      changed = true;
    }
  }
  return groupOf;
}

const folder = process.argv[2];
const page = readFileSync(join(folder, 'index.html'), 'utf8');
const [, first] = /<script src="(main-\w+\.js)"/.exec(page);

const bundle = await rollup({
  input: { main: join(folder, first) },
  // The build has shaken them.
  treeshake: false,
  plugins: [
    {
      name: 'files-of-the-build',
      resolveId: (source, importer) =>
        importer && source.startsWith('./') ? join(folder, source) : importer ? false : source,
    },
  ],
});

let groups = null;
const { output } = await bundle.generate({
  ...{ format: 'es', compact: true, hashCharacters: 'base36', onlyExplicitManualChunks: true },
  ...{ entryFileNames: 'main-[hash:8].js', chunkFileNames: 'chunk-[hash:8].js' },
  manualChunks(id, { getModuleInfo }) {
    if (!groups) {
      const modules = new Map();
      const left = [join(folder, first)];
      for (let next; (next = left.pop()) !== undefined;) {
        const { importedIds, dynamicallyImportedIds, isExternal, code } = getModuleInfo(next);
        if (isExternal || modules.has(next)) continue;
        const ours = (ids) => ids.filter((one) => !getModuleInfo(one).isExternal);
        const [imports, asks] = [ours(importedIds), ours(dynamicallyImportedIds)];
        modules.set(next, { imports, asks, size: code.length });
        left.push(...importedIds, ...dynamicallyImportedIds);
      }
      groups = groupsOf(modules, join(folder, first));
    }
    const group = groups.get(id);
    return group === START ? START : basename(group, '.js');
  },
});
await bundle.close();

for (const id of groups.keys()) rmSync(id);
for (const { fileName, code } of output) writeFileSync(join(folder, fileName), code);
const main = output.find(({ isEntry }) => isEntry);
const preloads = main.imports.map((name) => `<link rel="modulepreload" href="${name}">`).join('');
writeFileSync(
  join(folder, 'index.html'),
  page
    .replace(/<link rel="modulepreload"[^>]*>/g, '')
    .replace(`<script src="${first}"`, `${preloads}<script src="${main.fileName}"`),
);
console.log(`${groups.size} files of script became ${output.length}.`);
