import { freeName, newId } from '@cuaderno/core';
import type { AssetKind, Id } from '@cuaderno/core';
import { and, eq, getTableColumns, inArray, or } from 'drizzle-orm';
import { tutors } from '../accounts/tables.js';
import type { Database } from '../database/index.js';
import type { FileInfo, KnownFiles } from '../files/known-files.js';
import { files } from '../files/tables.js';
import { ProblemError } from '../problems/index.js';
import { Shelf } from './shelf.js';
import type { AssetRow, FolderRow } from './shelf.js';
import { assets, folders } from './tables.js';
import type { KeyedMutex } from './keyed-mutex.js';

/** A course, as far as it matters where its files land. */
export interface CourseOf {
  readonly id: Id;
  readonly tutor: Id;
  readonly name: string;
}

/** A file that was looked at and is stored. */
export interface ArrivingFile {
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

const ASSET = { ...getTableColumns(assets), bytes: files.bytes };

/** What lies on tutors' shelves, and what is put there. What a file holds is in the file store. */
export class Materials {
  /** @param turns what changes one tutor's shelf, one after the other */
  constructor(
    private readonly db: Database,
    private readonly known: KnownFiles,
    private readonly mutex: KeyedMutex,
  ) {}

  async shelf(tutor: Id): Promise<Shelf> {
    const [folderRows, assetRows] = await Promise.all([
      this.db.select().from(folders).where(eq(folders.tutor, tutor)),
      this.assets().where(eq(assets.tutor, tutor)),
    ]);
    return new Shelf(folderRows, assetRows);
  }

  /** A file by its id, whosever it is and wherever it lies. */
  async asset(id: Id): Promise<AssetRow | null> {
    const [row] = await this.assets().where(eq(assets.id, id));
    return row ?? null;
  }

  /** Whether a tutor has this file, the looks of one included. */
  async hasFile(tutor: Id, hash: string): Promise<boolean> {
    const rows = await this.db
      .select({ id: assets.id })
      .from(assets)
      .where(and(eq(assets.tutor, tutor), or(eq(assets.file, hash), eq(assets.preview, hash))))
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
    return this.mutex.take(tutor, () => this.newFolder(tutor, parent, name, null));
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
    return this.mutex.take(tutor, async () => {
      const shelf = await this.shelf(tutor);
      const known = shelf.folders.find((folder) => folder.course === id);
      return (known ?? (await this.newFolder(tutor, null, name, id))).id;
    });
  }

  /**
   * Puts a stored file on the shelf. The same content under the same name in the same folder is
   * there already, and stays as it is.
   */
  add(tutor: Id, folder: Id | null, arrival: ArrivingFile): Promise<AssetRow> {
    return this.mutex.take(tutor, () => this.put(tutor, folder, arrival));
  }

  private async put(tutor: Id, folder: Id | null, arrival: ArrivingFile): Promise<AssetRow> {
    const { name, kind, file, bytes, type, pages, width, height, length } = arrival;
    const shelf = await this.shelf(tutor);
    // A folder that was removed while the file was on its way doesn't take the file along.
    const place = shelf.hasFolder(folder) ? folder : null;
    const same = shelf.assets.find(
      (asset) => asset.folder === place && asset.file === file && asset.name === name,
    );
    if (same) return same;
    const row = {
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
      preview: null,
      removedAt: null,
      createdAt: Date.now(),
    };
    await this.db.batch([
      this.known.insert({ hash: file, bytes, type }),
      this.db.insert(assets).values(row),
    ]);
    return { ...row, bytes };
  }

  /** What a file looks like where it can't be shown itself: a PDF of slides, a film's still. */
  setPreview(asset: AssetRow, preview: FileInfo, pages: number | null): Promise<void> {
    return this.mutex.take(asset.tutor, async () => {
      await this.db.batch([
        this.known.insert(preview),
        this.db
          .update(assets)
          .set({ preview: preview.hash, ...(pages === null ? {} : { pages }) })
          .where(eq(assets.id, asset.id)),
      ]);
    });
  }

  private assets() {
    return this.db.select(ASSET).from(assets).innerJoin(files, eq(files.hash, assets.file));
  }
}
