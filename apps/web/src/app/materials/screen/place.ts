import { byName } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import type { Folder } from '@cuaderno/core/materials';
import type { AssetInfo, MaterialsInfo, ShelfInfo } from '../store/shapes';

/** Where one is among materials. */
export type LibraryPlace =
  | { readonly kind: 'own'; readonly folder: Id | null }
  | { readonly kind: 'shared'; readonly owner: Id; readonly folder: Id | null }
  | { readonly kind: 'bin' };

const BIN = 'bin';
const FROM = 'from-';

/** A place as it stands in the address. */
export function addressOf(place: LibraryPlace): string | null {
  if (place.kind === 'bin') return BIN;
  if (place.kind === 'own') return place.folder;
  return place.folder ?? `${FROM}${place.owner}`;
}

/** The place of an address; the top for one that isn't there any more. */
export function placeOf(
  at: string | undefined,
  known: Pick<MaterialsInfo, 'folders' | 'shared'>,
): LibraryPlace {
  if (at === BIN) return { kind: 'bin' };
  for (const { owner, folders } of known.shared) {
    if (at === `${FROM}${owner.id}`) return { kind: 'shared', owner: owner.id, folder: null };
    if (folders.some(({ id }) => id === at))
      return { kind: 'shared', owner: owner.id, folder: at! };
  }
  return { kind: 'own', folder: known.folders.some(({ id }) => id === at) ? at! : null };
}

/** A line of the list: a folder or a file. */
export type ListedRow =
  | { readonly kind: 'folder'; readonly id: Id; readonly folder: Folder; readonly inside: number }
  | {
      readonly kind: 'asset';
      readonly id: Id;
      readonly asset: AssetInfo;
      /** Where it lies, if that isn't where one is. */
      readonly path: string;
    };

/** Folders as lines of the list, by name. */
export function folderRows(shelf: ShelfInfo, folders: readonly Folder[]): ListedRow[] {
  return [...folders].sort(byName).map((folder) => ({
    kind: 'folder',
    id: folder.id,
    folder,
    inside:
      shelf.assets.filter((asset) => asset.folder === folder.id).length +
      shelf.folders.filter(({ parent }) => parent === folder.id).length,
  }));
}
