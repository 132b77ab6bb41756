import type { Id } from '../id/index.js';
import type { Folder } from './asset.js';

/** A folder with those that lie in it. */
export interface Branch<F extends Folder = Folder> {
  readonly folder: F;
  readonly branches: readonly Branch<F>[];
}

/** Names with numbers in them in the order in which people count. */
const order = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Compares names as people put them in order: `Page 2` before `Page 10`. */
export function byName(a: { readonly name: string }, b: { readonly name: string }): number {
  return order.compare(a.name, b.name);
}

/** Folders as they lie in one another, by name. One whose parent isn't among them is at the top. */
export function treeOf<F extends Folder>(folders: readonly F[]): Branch<F>[] {
  const ids = new Set(folders.map(({ id }) => id));
  const inside = new Map<Id | null, F[]>();
  for (const folder of folders) {
    const parent = folder.parent !== null && ids.has(folder.parent) ? folder.parent : null;
    inside.set(parent, [...(inside.get(parent) ?? []), folder]);
  }
  const branches = (parent: Id | null): Branch<F>[] =>
    (inside.get(parent) ?? [])
      .sort(byName)
      .map((folder) => ({ folder, branches: branches(folder.id) }));
  return branches(null);
}

/** This folder and all that lie in it, at any depth. */
export function within(folders: readonly Folder[], top: Id): Set<Id> {
  const found = new Set([top]);
  // Parents may stand after their children, so it is gone through until nothing is added.
  for (let before = 0; before < found.size;) {
    before = found.size;
    for (const { id, parent } of folders) if (parent !== null && found.has(parent)) found.add(id);
  }
  return found;
}

/** From the top down to this folder, which is the last. Empty for one that isn't there. */
export function pathTo<F extends Folder>(folders: readonly F[], id: Id | null): F[] {
  const known = new Map(folders.map((folder) => [folder.id, folder]));
  const path: F[] = [];
  for (
    let here = id === null ? undefined : known.get(id);
    here && !path.includes(here);
    here = here.parent === null ? undefined : known.get(here.parent)
  )
    path.unshift(here);
  return path;
}

/** Whether a folder may be put into another (or, with `null`, to the top): not into itself. */
export function mayLieIn(folders: readonly Folder[], what: Id, to: Id | null): boolean {
  return to === null || !within(folders, what).has(to);
}

/**
 * The wished name, or with a number behind it where it is taken: `Chart 2.pdf`. Case doesn't tell
 * names apart, since it doesn't on every machine that they may be saved to.
 */
export function freeName(wished: string, taken: Iterable<string>): string {
  const known = new Set([...taken].map((name) => name.toLowerCase()));
  if (!known.has(wished.toLowerCase())) return wished;
  const [, base, ending] = /^(.*?)(\.[^.\s]{1,8})?$/su.exec(wished)!;
  for (let n = 2; ; n++) {
    const name = `${base} ${n}${ending ?? ''}`;
    if (!known.has(name.toLowerCase())) return name;
  }
}
