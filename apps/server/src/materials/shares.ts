import { newId, within } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { and, eq, inArray } from 'drizzle-orm';
import { tutors } from '../accounts/tables.js';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import type { Materials } from './service.js';
import { Shelf } from './shelf.js';
import type { AssetRow } from './shelf.js';
import { folderShares } from './tables.js';
import type { KeyedMutex } from './keyed-mutex.js';

/** With whom a folder is shared: a tutor may use what is in it, students of a course may look. */
export type ShareWith =
  { readonly kind: 'tutor'; readonly id: Id } | { readonly kind: 'course'; readonly id: Id };

export interface Share {
  readonly id: Id;
  readonly folder: Id;
  readonly with: ShareWith & { readonly name: string };
}

/** What is shared of one tutor's shelf. */
export interface ForeignShelf {
  readonly owner: { readonly id: Id; readonly name: string };
  /** Folders that were shared, the folders within them, and their files. */
  readonly shelf: Shelf;
}

/** Who may use or see folders that aren't their own. A folder is shared with all that is in it. */
export class Shares {
  constructor(
    private readonly db: Database,
    private readonly materials: Materials,
    private readonly mutex: KeyedMutex,
  ) {}

  /** With whom the folders of this shelf are shared. */
  async of(shelf: Shelf): Promise<Share[]> {
    const ids = shelf.folders.map(({ id }) => id);
    if (ids.length === 0) return [];
    const rows = await this.db
      .select({ share: folderShares, tutor: tutors.name, course: courses.name })
      .from(folderShares)
      .leftJoin(tutors, eq(tutors.id, folderShares.tutor))
      .leftJoin(courses, eq(courses.id, folderShares.course))
      .where(inArray(folderShares.folder, ids));
    return rows.map(({ share, tutor: tutorName, course }) => ({
      id: share.id,
      folder: share.folder,
      with: share.tutor
        ? { kind: 'tutor', id: share.tutor, name: tutorName ?? '' }
        : { kind: 'course', id: share.course!, name: course ?? '' },
    }));
  }

  /** Throws `not-found` for a folder, tutor or course that isn't there, or isn't theirs to share with. */
  share(tutor: Id, folder: Id, share: ShareWith): Promise<Share> {
    return this.mutex.take(tutor, async () => {
      const shelf = await this.materials.shelf(tutor);
      if (!shelf.folders.some(({ id }) => id === folder)) throw new ProblemError('not-found');
      const known = (await this.of(shelf)).find(
        (one) => one.folder === folder && one.with.kind === share.kind && one.with.id === share.id,
      );
      if (known) return known;
      const name = await this.nameOf(tutor, share);
      const row = {
        id: newId(),
        folder,
        tutor: share.kind === 'tutor' ? share.id : null,
        course: share.kind === 'course' ? share.id : null,
        createdAt: Date.now(),
      };
      await this.db.insert(folderShares).values(row);
      return { id: row.id, folder, with: { ...share, name } };
    });
  }

  /** From now on nobody has what this share let them have. */
  takeBack(tutor: Id, id: Id): Promise<void> {
    return this.mutex.take(tutor, async () => {
      const known = (await this.of(await this.materials.shelf(tutor))).some(
        (share) => share.id === id,
      );
      if (!known) throw new ProblemError('not-found');
      await this.db.delete(folderShares).where(eq(folderShares.id, id));
    });
  }

  /** What others share with this tutor. */
  async withTutor(tutor: Id): Promise<ForeignShelf[]> {
    return this.shared(eq(folderShares.tutor, tutor));
  }

  /** What students of a course may look at. */
  async withCourse(course: Id): Promise<ForeignShelf[]> {
    return this.shared(eq(folderShares.course, course));
  }

  /** A file that this tutor may use: their own, or in a folder shared with them. Throws `not-found`. */
  async usable(tutor: Id, id: Id): Promise<AssetRow> {
    const asset = await this.materials.asset(id);
    if (asset?.tutor === tutor && (await this.materials.shelf(tutor)).assets.some(same(id)))
      return asset;
    for (const { shelf } of asset ? await this.withTutor(tutor) : []) {
      const found = shelf.assets.find(same(id));
      if (found) return found;
    }
    throw new ProblemError('not-found');
  }

  /** Whether a stored file is shared with this tutor. */
  async mayUseFile(tutor: Id, hash: string): Promise<boolean> {
    return (await this.withTutor(tutor)).some(({ shelf }) =>
      shelf.assets.some(({ file, preview }) => file === hash || preview === hash),
    );
  }

  private async shared(which: ReturnType<typeof eq>): Promise<ForeignShelf[]> {
    const rows = await this.db.select().from(folderShares).where(which);
    if (rows.length === 0) return [];
    const owners = await this.ownersOf(rows.map(({ folder }) => folder));
    const shelves = await Promise.all(
      owners.map(async ({ owner, roots }) => ({
        owner,
        shelf: shelfOf(await this.materials.shelf(owner.id), roots),
      })),
    );
    // What lies in the bin is shared with nobody.
    return shelves.filter(({ shelf }) => shelf.folders.length > 0);
  }

  private async ownersOf(
    ids: readonly Id[],
  ): Promise<{ owner: { id: Id; name: string }; roots: Id[] }[]> {
    const rows = await this.materials.ownersOfFolders(ids);
    const owners = new Map<Id, { owner: { id: Id; name: string }; roots: Id[] }>();
    for (const { folder, tutor, name } of rows) {
      const one = owners.get(tutor) ?? { owner: { id: tutor, name }, roots: [] };
      one.roots.push(folder);
      owners.set(tutor, one);
    }
    return [...owners.values()];
  }

  private async nameOf(tutor: Id, share: ShareWith): Promise<string> {
    const [row] =
      share.kind === 'tutor'
        ? await this.db.select({ name: tutors.name }).from(tutors).where(eq(tutors.id, share.id))
        : await this.db
            .select({ name: courses.name })
            .from(courses)
            .where(and(eq(courses.id, share.id), eq(courses.tutor, tutor)));
    if (!row || (share.kind === 'tutor' && share.id === tutor)) throw new ProblemError('not-found');
    return row.name;
  }
}

function same(id: Id): (asset: AssetRow) => boolean {
  return (asset) => asset.id === id;
}

/** The part of a shelf that lies in these folders. */
function shelfOf(shelf: Shelf, roots: readonly Id[]): Shelf {
  const inside = new Set<Id>();
  for (const root of roots)
    if (shelf.hasFolder(root)) for (const id of within(shelf.folders, root)) inside.add(id);
  return new Shelf(
    shelf.folders
      .filter(({ id }) => inside.has(id))
      // Where it lies on its owner's shelf is nobody else's business.
      .map((folder) => ({
        ...folder,
        course: null,
        parent: folder.parent !== null && inside.has(folder.parent) ? folder.parent : null,
      })),
    shelf.assets.filter(({ folder }) => folder !== null && inside.has(folder)),
  );
}
