import { byName, freeName, mayLieIn, newId } from '@cuaderno/core';
import type { AssetKind, Id } from '@cuaderno/core';
import { and, eq, inArray, notExists, or, sql } from 'drizzle-orm';
import { tutors } from '../accounts/tables.js';
import type { Database } from '../database/index.js';
import { boardFiles, files } from '../files/tables.js';
import type { FileStore } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import { Shelf } from './shelf.js';
import type { AssetRow, FolderRow } from './shelf.js';
import { assets, folders, folderShares } from './tables.js';
import { Turns } from './turns.js';

/** Things that are moved, copied or removed together. */
export interface Choice {
  readonly folders: readonly Id[];
  readonly assets: readonly Id[];
}

/** A course, as far as it matters where its files land. */
export interface CourseOf {
  readonly id: Id;
  readonly tutor: Id;
  readonly name: string;
}

/** A file that was looked at and is stored. */
export interface Arrival {
  readonly name: string;
  readonly kind: AssetKind;
  readonly file: string;
  readonly bytes: number;
  readonly type: string;
  readonly pages: number | null;
  readonly width: number;
  readonly height: number;
  readonly length: number;
}

/** How many rows are written in one statement: SQLite takes 32,766 values. */
const ROWS = 500;

/** Folders and files of tutors: what lies where. What a file holds is in the file store. */
export class Materials {
  private readonly turns = new Turns();

  constructor(
    private readonly db: Database,
    private readonly store: FileStore,
  ) {}

  async shelf(tutor: Id): Promise<Shelf> {
    const [folderRows, assetRows] = await Promise.all([
      this.db.select().from(folders).where(eq(folders.tutor, tutor)),
      this.db.select().from(assets).where(eq(assets.tutor, tutor)),
    ]);
    return new Shelf(folderRows, assetRows);
  }

  /** A file by its id, whosever it is and wherever it lies. */
  async asset(id: Id): Promise<AssetRow | null> {
    const [row] = await this.db.select().from(assets).where(eq(assets.id, id));
    return row ?? null;
  }

  /** Size in bytes, and media type, of a stored file. */
  async fileInfo(hash: string): Promise<{ bytes: number; type: string }> {
    const [row] = await this.db.select().from(files).where(eq(files.hash, hash));
    if (!row) throw new ProblemError('not-found');
    return row;
  }

  /** Sizes of stored files, in bytes. */
  async sizes(hashes: readonly string[]): Promise<ReadonlyMap<string, number>> {
    const sizes = new Map<string, number>();
    for (const some of parts([...new Set(hashes)]))
      for (const { hash, bytes } of await this.db
        .select()
        .from(files)
        .where(inArray(files.hash, some)))
        sizes.set(hash, bytes);
    return sizes;
  }

  /** Whether a tutor has this file, the looks of one included. */
  async hasFile(tutor: Id, hash: string): Promise<boolean> {
    const rows = await this.db
      .select({ id: assets.id })
      .from(assets)
      .where(and(eq(assets.tutor, tutor), or(eq(assets.file, hash), eq(assets.looks, hash))))
      .limit(1);
    return rows.length > 0;
  }

  /** Whose these folders are. */
  ownersOfFolders(ids: readonly Id[]): Promise<{ folder: Id; tutor: Id; name: string }[]> {
    return this.db
      .select({ folder: folders.id, tutor: tutors.id, name: tutors.name })
      .from(folders)
      .innerJoin(tutors, eq(tutors.id, folders.tutor))
      .where(inArray(folders.id, [...ids]));
  }

  makeFolder(tutor: Id, parent: Id | null, name: string): Promise<FolderRow> {
    return this.turns.take(tutor, () => this.newFolder(tutor, parent, name, null));
  }

  private async newFolder(
    tutor: Id,
    parent: Id | null,
    name: string,
    course: Id | null,
  ): Promise<FolderRow> {
    const shelf = await this.shelf(tutor);
    if (!shelf.hasFolder(parent)) throw new ProblemError('not-found');
    const row: FolderRow = {
      id: newId(),
      tutor,
      parent,
      name: freeName(name, shelf.namesIn(parent)),
      course,
      removedAt: null,
      createdAt: Date.now(),
    };
    await this.db.insert(folders).values(row);
    return row;
  }

  /** The folder in which lands what is brought to a course; it is made where it isn't there. */
  folderOf({ id, tutor, name }: CourseOf): Promise<Id> {
    // Several files that are brought together find one folder.
    return this.turns.take(tutor, async () => {
      const shelf = await this.shelf(tutor);
      const known = shelf.folders.find((folder) => folder.course === id);
      return (known ?? (await this.newFolder(tutor, null, name, id))).id;
    });
  }

  /**
   * Puts a stored file on the shelf. The same content under the same name in the same folder is
   * there already, and stays as it is.
   */
  add(tutor: Id, folder: Id | null, arrival: Arrival): Promise<AssetRow> {
    return this.turns.take(tutor, () => this.put(tutor, folder, arrival));
  }

  private async put(tutor: Id, folder: Id | null, arrival: Arrival): Promise<AssetRow> {
    const { name, kind, file, bytes, type, pages, width, height, length } = arrival;
    const shelf = await this.shelf(tutor);
    // A folder that was removed while the file was on its way doesn't take the file along.
    const place = shelf.hasFolder(folder) ? folder : null;
    const same = shelf.assets.find(
      (asset) => asset.folder === place && asset.file === file && asset.name === name,
    );
    if (same) return same;
    const row: AssetRow = {
      id: newId(),
      tutor,
      folder: place,
      name: freeName(name, shelf.namesIn(place)),
      kind,
      file,
      pages,
      width,
      height,
      length,
      looks: null,
      removedAt: null,
      createdAt: Date.now(),
    };
    await this.db.batch([
      this.db
        .insert(files)
        .values({ hash: file, bytes, type, createdAt: Date.now() })
        .onConflictDoNothing(),
      this.db.insert(assets).values(row),
    ]);
    return row;
  }

  /** What a file looks like where it can't be shown itself: a PDF of slides, a film's still. */
  async setLooks(
    id: Id,
    looks: { readonly hash: string; readonly bytes: number; readonly type: string },
    pages: number | null,
  ): Promise<void> {
    const { hash, bytes, type } = looks;
    await this.db.batch([
      this.db
        .insert(files)
        .values({ hash, bytes, type, createdAt: Date.now() })
        .onConflictDoNothing(),
      this.db
        .update(assets)
        .set({ looks: hash, ...(pages === null ? {} : { pages }) })
        .where(eq(assets.id, id)),
    ]);
  }

  async nameFolder(tutor: Id, id: Id, name: string): Promise<void> {
    const shelf = await this.shelf(tutor);
    const folder = shelf.folders.find((one) => one.id === id);
    if (!folder) throw new ProblemError('not-found');
    const free = freeName(name, shelf.namesIn(folder.parent, new Set([id])));
    await this.db.update(folders).set({ name: free }).where(eq(folders.id, id));
  }

  async nameAsset(tutor: Id, id: Id, name: string): Promise<void> {
    const shelf = await this.shelf(tutor);
    const asset = shelf.assets.find((one) => one.id === id);
    if (!asset) throw new ProblemError('not-found');
    const free = freeName(name, shelf.namesIn(asset.folder, new Set([id])));
    await this.db.update(assets).set({ name: free }).where(eq(assets.id, id));
  }

  /** Throws `not-found`, or `folder-in-itself` for a folder that would lie in itself. */
  async move(tutor: Id, choice: Choice, to: Id | null): Promise<void> {
    const shelf = await this.shelf(tutor);
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
  }

  /**
   * Copies things of a shelf, one's own or one that is shared, into a folder of one's own. Contents
   * aren't copied: both name the same.
   */
  async copy(tutor: Id, from: Shelf, choice: Choice, to: Id | null): Promise<void> {
    const { folders: some, assets: others } = chosen(from, choice);
    const shelf = await this.shelf(tutor);
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
      copyFolder(
        some.find((one) => one.id === id)!,
        to,
        name,
      );
      // Each level before the next, so that every parent has its copy when its children come.
      for (let level = [id]; level.length > 0;) {
        const inside = from.folders.filter(
          ({ parent }) => parent !== null && level.includes(parent),
        );
        for (const folder of inside) copyFolder(folder, copies.get(folder.parent!)!, folder.name);
        for (const asset of from.assets)
          if (asset.folder !== null && level.includes(asset.folder))
            copyAsset(asset, copies.get(asset.folder)!, asset.name);
        level = inside.map((folder) => folder.id);
      }
    }
    for (const { id, name } of named(others, taken))
      copyAsset(
        others.find((one) => one.id === id)!,
        to,
        name,
      );
    await this.all([
      ...parts(madeFolders).map((rows) => this.db.insert(folders).values(rows)),
      ...parts(madeAssets).map((rows) => this.db.insert(assets).values(rows)),
    ]);
  }

  /** Puts things into the bin; boards that show them keep them. */
  async remove(tutor: Id, choice: Choice): Promise<void> {
    const { folders: some, assets: others } = chosen(await this.shelf(tutor), choice);
    await this.setRemoved(some, others, Date.now());
  }

  /** Brings things back from the bin: to where they were or, where that is gone, to the top. */
  async restore(tutor: Id, choice: Choice): Promise<void> {
    const shelf = await this.shelf(tutor);
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
  }

  /** Removes for good what is in the bin. What boards or others show stays stored. */
  async emptyBin(tutor: Id): Promise<void> {
    const shelf = await this.shelf(tutor);
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
    await this.forget(gone.flatMap(({ file, looks }) => (looks ? [file, looks] : [file])));
  }

  /** Removes stored files that nothing names any more. */
  private async forget(hashes: readonly string[]): Promise<void> {
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
                .where(or(eq(assets.file, files.hash), eq(assets.looks, files.hash))),
            ),
          ),
        )
        .returning({ hash: files.hash });
      for (const { hash } of removed) await this.store.remove(hash);
    }
  }

  /** Removes a stored file of which nothing is known: it came, and was refused or is kept as another. */
  async dropUnknown(hash: string): Promise<void> {
    const rows = await this.db.select({ hash: files.hash }).from(files).where(eq(files.hash, hash));
    if (rows.length === 0) await this.store.remove(hash);
  }

  private setRemoved(
    some: readonly FolderRow[],
    others: readonly AssetRow[],
    removedAt: number,
  ): Promise<void> {
    return this.all([
      ...parts(some.map(({ id }) => id)).map((ids) =>
        this.db.update(folders).set({ removedAt }).where(inArray(folders.id, ids)),
      ),
      ...parts(others.map(({ id }) => id)).map((ids) =>
        this.db.update(assets).set({ removedAt }).where(inArray(assets.id, ids)),
      ),
    ]);
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
  choice: Choice,
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
