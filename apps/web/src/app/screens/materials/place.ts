import { byName, pathTo } from '@cuaderno/core';
import type { Folder, Id } from '@cuaderno/core';
import type { AssetInfo, MaterialsInfo, ShelfInfo } from '../../materials/shapes';

/** Where one is among materials. */
export type Place =
  | { readonly kind: 'own'; readonly folder: Id | null }
  | { readonly kind: 'shared'; readonly owner: Id; readonly folder: Id | null }
  | { readonly kind: 'bin' };

const BIN = 'bin';
const FROM = 'from-';

/** A place as it stands in the address. */
export function addressOf(place: Place): string | null {
  if (place.kind === 'bin') return BIN;
  if (place.kind === 'own') return place.folder;
  return place.folder ?? `${FROM}${place.owner}`;
}

/** The place of an address; the top for one that isn't there any more. */
export function placeOf(
  at: string | undefined,
  known: Pick<MaterialsInfo, 'folders' | 'shared'>,
): Place {
  if (at === BIN) return { kind: 'bin' };
  for (const { owner, folders } of known.shared) {
    if (at === `${FROM}${owner.id}`) return { kind: 'shared', owner: owner.id, folder: null };
    if (folders.some(({ id }) => id === at))
      return { kind: 'shared', owner: owner.id, folder: at! };
  }
  return { kind: 'own', folder: known.folders.some(({ id }) => id === at) ? at! : null };
}

/** A line of the list: a folder or a file. */
export type Row =
  | { readonly kind: 'folder'; readonly id: Id; readonly folder: Folder; readonly inside: number }
  | {
      readonly kind: 'asset';
      readonly id: Id;
      readonly asset: AssetInfo;
      /** Where it lies, if that isn't where one is. */
      readonly path: string;
    };

/** Folders, by name, that lie directly at a place. */
export function foldersAt(shelf: ShelfInfo, folder: Id | null): Row[] {
  return shelf.folders
    .filter(({ parent }) => parent === folder)
    .sort(byName)
    .map((one) => ({
      kind: 'folder',
      id: one.id,
      folder: one,
      inside:
        shelf.assets.filter((asset) => asset.folder === one.id).length +
        shelf.folders.filter(({ parent }) => parent === one.id).length,
    }));
}

/** "Sky › Winter": where a folder lies. */
export function pathOf(folders: readonly Folder[], folder: Id | null): string {
  return pathTo(folders, folder)
    .map(({ name }) => name)
    .join(' › ');
}
