import { byName, freeName, mayLieIn, newId } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { and, eq, inArray, notExists, or, sql } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { boardFiles, files } from '../files/tables.js';
import type { FileStore } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import type { Materials } from './service.js';
import type { AssetRow, FolderRow, Shelf } from './shelf.js';
import { assets, folders, folderShares } from './tables.js';
import type { KeyedMutex } from './keyed-mutex.js';

/** Things that are moved, copied or removed together. */
export interface EditedChoice {
  readonly folders: readonly Id[];
  readonly assets: readonly Id[];
}

/** How many rows are written in one statement: SQLite takes 32,766 values. */
const ROWS = 500;

/** Puts a tutor's shelf in order: names, places, the bin. */
export class LibraryEdits {
  constructor(
    private readonly db: Database,
    private readonly materials: Materials,
    private readonly store: FileStore,
    private readonly mutex: KeyedMutex,
  ) {}

  nameFolder(tutor: Id, id: Id, name: string): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const shelf = await this.materials.shelf(tutor);
      const folder = shelf.folders.find((one) => one.id === id);
      if (!folder) throw new ProblemError('not-found');
      const free = freeName(name, shelf.namesIn(folder.parent, new Set([id])));
      await this.db.update(folders).set({ name: free }).where(eq(folders.id, id));
    });
  }

  nameAsset(tutor: Id, id: Id, name: string): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const shelf = await this.materials.shelf(tutor);
      const asset = shelf.assets.find((one) => one.id === id);
      if (!asset) throw new ProblemError('not-found');
      const free = freeName(name, shelf.namesIn(asset.folder, new Set([id])));
      await this.db.update(assets).set({ name: free }).where(eq(assets.id, id));
    });
  }

  /** Throws `not-found`, or `folder-in-itself` for a folder that would lie in itself. */
  move(tutor: Id, choice: EditedChoice, to: Id | null): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const shelf = await this.materials.shelf(tutor);
      const { folders: some, assets: others } = chosen(shelf, choice);
      if (!shelf.hasFolder(to)) throw new ProblemError('not-found');
      for (const { id } of some)
        if (!mayLieIn(shelf.folders, id, to)) throw new ProblemError('folder-in-itself');
      const taken = shelf.namesIn(to, new Set([...some, ...others].map(({ id }) => id)));
      await this.all([
        ...named(some, taken).map(({ id, name }) =>
          this.db.update(folders).set({ parent: to, name }).where(eq(folders.id, id)),
        ),
        ...named(others, taken).map(({ id, name }) =>
          this.db.update(assets).set({ folder: to, name }).where(eq(assets.id, id)),
        ),
      ]);
    });
  }

  /**
   * Copies items of a shelf, one's own or one that is shared, into a folder of one's own. Contents
   * aren't copied: both name the same.
   */
  copy(tutor: Id, from: Shelf, choice: EditedChoice, to: Id | null): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const { folders: some, assets: others } = chosen(from, choice);
      const shelf = await this.materials.shelf(tutor);
      if (!shelf.hasFolder(to)) throw new ProblemError('not-found');
      const taken = shelf.namesIn(to);
      const now = Date.now();
      const copies = new Map<Id, Id>();
      const madeFolders: FolderRow[] = [];
      const madeAssets: AssetRow[] = [];
      const copyAsset = (asset: AssetRow, folder: Id | null, name: string): void => {
        madeAssets.push({
          ...asset,
          id: newId(),
          tutor,
          folder,
          name,
          removedAt: null,
          createdAt: now,
        });
      };
      const copyFolder = (folder: FolderRow, parent: Id | null, name: string): void => {
        const id = newId();
        copies.set(folder.id, id);
        const fresh = { tutor, parent, name, course: null, removedAt: null, createdAt: now };
        madeFolders.push({ id, ...fresh });
      };
      for (const { id, name } of named(some, taken)) {
        const folder = some.find((one) => one.id === id)!;
        copyFolder(folder, to, name);
        // Each level before the next, so that every parent has its copy when its children come.
        for (let level = [id]; level.length > 0;) {
          const inside = from.folders.filter(
            ({ parent }) => parent !== null && level.includes(parent),
          );
          for (const one of inside) copyFolder(one, copies.get(one.parent!)!, one.name);
          for (const asset of from.assets)
            if (asset.folder !== null && level.includes(asset.folder))
              copyAsset(asset, copies.get(asset.folder)!, asset.name);
          level = inside.map((one) => one.id);
        }
      }
      for (const { id, name } of named(others, taken)) {
        const asset = others.find((one) => one.id === id)!;
        copyAsset(asset, to, name);
      }
      await this.all([
        ...parts(madeFolders).map((rows) => this.db.insert(folders).values(rows)),
        ...parts(madeAssets).map((rows) => this.db.insert(assets).values(rows)),
      ]);
    });
  }

  /** Puts things into the bin; boards that show them keep them. */
  remove(tutor: Id, choice: EditedChoice): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const { folders: some, assets: others } = chosen(await this.materials.shelf(tutor), choice);
      const removedAt = Date.now();
      await this.all([
        ...parts(some.map(({ id }) => id)).map((ids) =>
          this.db.update(folders).set({ removedAt }).where(inArray(folders.id, ids)),
        ),
        ...parts(others.map(({ id }) => id)).map((ids) =>
          this.db.update(assets).set({ removedAt }).where(inArray(assets.id, ids)),
        ),
      ]);
    });
  }

  /** Brings things back from the bin: to where they were or, where that is gone, to the top. */
  restore(tutor: Id, choice: EditedChoice): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const shelf = await this.materials.shelf(tutor);
      const { folders: some, assets: others } = chosen(shelf.bin, choice);
      const backIn = new Map<Id | null, string[]>();
      const place = (parent: Id | null, name: string): { parent: Id | null; name: string } => {
        const to = shelf.hasFolder(parent) ? parent : null;
        const taken = backIn.get(to) ?? shelf.namesIn(to);
        const free = freeName(name, taken);
        backIn.set(to, [...taken, free]);
        return { parent: to, name: free };
      };
      await this.all([
        ...some.map((folder) =>
          this.db
            .update(folders)
            .set({ removedAt: null, ...place(folder.parent, folder.name) })
            .where(eq(folders.id, folder.id)),
        ),
        ...others.map((asset) => {
          const { parent, name } = place(asset.folder, asset.name);
          return this.db
            .update(assets)
            .set({ removedAt: null, folder: parent, name })
            .where(eq(assets.id, asset.id));
        }),
      ]);
    });
  }

  /**
   * Removes for good what is in the bin; returns the files that are gone with it. What boards or
   * others show stays stored.
   */
  emptyBin(tutor: Id): Promise<string[]> {
    return this.mutex.take(tutor, async () => {
      const shelf = await this.materials.shelf(tutor);
      const { bin } = shelf;
      const inside = shelf.below(bin.folders.map(({ id }) => id));
      const gone = [...bin.assets, ...inside.assets];
      const folderIds = inside.folders.map(({ id }) => id);
      await this.all([
        ...parts(folderIds).flatMap((ids) => [
          this.db.delete(folderShares).where(inArray(folderShares.folder, ids)),
          this.db.delete(folders).where(inArray(folders.id, ids)),
        ]),
        ...parts(gone.map(({ id }) => id)).map((ids) =>
          this.db.delete(assets).where(inArray(assets.id, ids)),
        ),
      ]);
      return this.forget(gone.flatMap(({ file, preview }) => (preview ? [file, preview] : [file])));
    });
  }

  /** Removes stored files that nothing names any more. */
  private async forget(hashes: readonly string[]): Promise<string[]> {
    const all: string[] = [];
    for (const some of parts([...new Set(hashes)])) {
      const removed = await this.db
        .delete(files)
        .where(
          and(
            inArray(files.hash, some),
            notExists(
              this.db
                .select({ one: sql`1` })
                .from(boardFiles)
                .where(eq(boardFiles.hash, files.hash)),
            ),
            notExists(
              this.db
                .select({ one: sql`1` })
                .from(assets)
                .where(or(eq(assets.file, files.hash), eq(assets.preview, files.hash))),
            ),
          ),
        )
        .returning({ hash: files.hash });
      for (const { hash } of removed) {
        await this.store.remove(hash);
        all.push(hash);
      }
    }
    return all;
  }

  /** All of these or none. */
  private async all(queries: Parameters<Database['batch']>[0][number][]): Promise<void> {
    const [first, ...rest] = queries;
    if (first) await this.db.batch([first, ...rest]);
  }
}

/** Rows of what was chosen. Throws `not-found` where any of it isn't there. */
function chosen(
  from: { readonly folders: readonly FolderRow[]; readonly assets: readonly AssetRow[] },
  choice: EditedChoice,
): { folders: FolderRow[]; assets: AssetRow[] } {
  const pick = <R extends { readonly id: Id }>(rows: readonly R[], ids: readonly Id[]): R[] => {
    const known = new Map(rows.map((row) => [row.id, row]));
    return [...new Set(ids)].map((id) => {
      const row = known.get(id);
      if (!row) throw new ProblemError('not-found');
      return row;
    });
  };
  return { folders: pick(from.folders, choice.folders), assets: pick(from.assets, choice.assets) };
}

/** Free names for these, one after the other; `taken` grows by them. */
function named<R extends { readonly id: Id; readonly name: string }>(
  rows: readonly R[],
  taken: string[],
): { id: Id; name: string }[] {
  return [...rows].sort(byName).map(({ id, name: wished }) => {
    const name = freeName(wished, taken);
    taken.push(name);
    return { id, name };
  });
}

function parts<T>(list: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(list.length / ROWS) }, (_, i) =>
    list.slice(i * ROWS, (i + 1) * ROWS),
  );
}
