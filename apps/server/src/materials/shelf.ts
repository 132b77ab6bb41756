import { within } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { assets, folders } from './tables.js';

export type FolderRow = typeof folders.$inferSelect;
/** A file, with its size in bytes. */
export type AssetRow = typeof assets.$inferSelect & { readonly bytes: number };

/** All that one tutor has, as it is at a moment: what is there, and what is in the bin. */
export class Shelf {
  /** Folders that are there: neither they nor any they lie in were removed. */
  readonly folders: readonly FolderRow[];
  readonly assets: readonly AssetRow[];
  private readonly present: ReadonlySet<Id>;

  constructor(
    readonly allFolders: readonly FolderRow[],
    readonly allAssets: readonly AssetRow[],
  ) {
    const gone = new Set<Id>();
    for (const { id, removedAt } of allFolders)
      if (removedAt !== null) for (const inside of within(allFolders, id)) gone.add(inside);
    this.folders = allFolders.filter(({ id }) => !gone.has(id));
    this.present = new Set(this.folders.map(({ id }) => id));
    this.assets = allAssets.filter(
      ({ folder, removedAt }) => removedAt === null && this.hasFolder(folder),
    );
  }

  /** Whether a folder is there; the top always is. */
  hasFolder(id: Id | null): boolean {
    return id === null || this.present.has(id);
  }

  /** What was put into the bin by itself: not what only lies in a folder that was. */
  get bin(): { folders: FolderRow[]; assets: AssetRow[] } {
    const known = new Set(this.allFolders.map(({ id }) => id));
    const outside = (parent: Id | null): boolean =>
      parent === null || this.present.has(parent) || !known.has(parent);
    return {
      folders: this.allFolders.filter(
        ({ removedAt, parent }) => removedAt !== null && outside(parent),
      ),
      assets: this.allAssets.filter(
        ({ removedAt, folder }) => removedAt !== null && outside(folder),
      ),
    };
  }

  /** These folders with all that lies in them. */
  below(ids: Iterable<Id>): { folders: FolderRow[]; assets: AssetRow[] } {
    const inside = new Set<Id>();
    for (const id of ids) for (const one of within(this.allFolders, id)) inside.add(one);
    return {
      folders: this.allFolders.filter(({ id }) => inside.has(id)),
      assets: this.allAssets.filter(({ folder }) => folder !== null && inside.has(folder)),
    };
  }

  /** Names that are taken in a folder, but for those of the things given. */
  namesIn(parent: Id | null, but: ReadonlySet<Id> = new Set()): string[] {
    return [
      ...this.folders.filter((folder) => folder.parent === parent && !but.has(folder.id)),
      ...this.assets.filter((asset) => asset.folder === parent && !but.has(asset.id)),
    ].map(({ name }) => name);
  }
}
