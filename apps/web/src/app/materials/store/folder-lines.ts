import { pathTo, treeOf } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import type { Branch, Folder } from '@cuaderno/core/materials';

/** "Sky › Winter": where a folder lies; nothing for the top. */
export function pathOf(folders: readonly Folder[], folder: Id | null): string {
  return pathTo(folders, folder)
    .map(({ name }) => name)
    .join(' › ');
}

/** Folders with their paths, in the order of the tree: to be chosen from. */
export function folderLines(folders: readonly Folder[]): { id: Id; name: string }[] {
  const lines = (branches: readonly Branch[]): { id: Id; name: string }[] =>
    branches.flatMap(({ folder: { id }, branches: inside }) => [
      { id, name: pathOf(folders, id) },
      ...lines(inside),
    ]);
  return lines(treeOf(folders));
}
