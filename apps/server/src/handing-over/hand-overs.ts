import { newId } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { files } from '../files/tables.js';
import { lessons, people } from '../lessons/tables.js';
import type { Shares } from '../materials/shares.js';
import { assets } from '../materials/tables.js';
import { ProblemError } from '../problems/index.js';
import type { HandedFile, HandOverShape, Receiver } from '@cuaderno/contract/handing-over';
import { handOverFetches, handOvers } from './tables.js';

/** Hand-overs of one course at most: what is handed over is meant to be found again. */
const MOST = 500;

/** A stored file that is handed out. */
export interface Handed {
  readonly file: string;
  readonly type: string;
  readonly name: string;
  readonly course: Id;
}

/**
 * Files that are handed over on purpose: to all students of a course, also to those who come later, or to one. A
 * student is known by what their browser keeps, as at the door.
 */
export class HandOvers {
  constructor(
    private readonly db: Database,
    private readonly shares: Pick<Shares, 'usable'>,
  ) {}

  /** Students of a course who were let in once, by the name they had last; those who are in now come first. */
  async receivers(course: Id): Promise<Receiver[]> {
    const rows = await this.db
      .select({
        ...{ device: people.device, name: people.name, closedAt: lessons.closedAt },
      })
      .from(people)
      .innerJoin(lessons, eq(lessons.id, people.lesson))
      .where(and(eq(lessons.course, course), eq(people.role, 'student'), eq(people.door, 'in')))
      .orderBy(asc(people.arrivedAt));
    const known = new Map<string, Receiver>();
    for (const { device, name, closedAt } of rows)
      if (device) known.set(device, { id: device, name, here: closedAt === null });
    return [...known.values()].sort(
      (a, b) => Number(b.here) - Number(a.here) || a.name.localeCompare(b.name),
    );
  }

  /** What was handed over in a course, the newest first, and who has it. */
  async of(course: Id): Promise<HandOverShape[]> {
    const rows = await this.db
      .select({ handOver: handOvers, name: assets.name })
      .from(handOvers)
      .innerJoin(assets, eq(assets.id, handOvers.asset))
      .where(and(eq(handOvers.course, course), isNull(assets.removedAt)))
      .orderBy(desc(handOvers.at));
    const fetches =
      rows.length === 0
        ? []
        : await this.db
            .select()
            .from(handOverFetches)
            .where(
              inArray(
                handOverFetches.handOver,
                rows.map(({ handOver }) => handOver.id),
              ),
            )
            .orderBy(asc(handOverFetches.at));
    return rows.map(({ handOver: { id, asset, name: to, at }, name: fileName }) => ({
      ...{ id, asset, fileName, to, at },
      fetched: fetches
        .filter(({ handOver }) => handOver === id)
        .map(({ name, at: when }) => ({ name, at: when })),
    }));
  }

  /**
   * Hands a file to students of a course. What somebody has already isn't handed to them twice.
   * Throws `not-found` for a file that isn't this tutor's to hand over, or a student who isn't of the course, and
   * `too-many-hand-overs`.
   */
  async hand(tutor: Id, course: Id, asset: Id, to: 'all' | readonly string[]): Promise<void> {
    await this.shares.usable(tutor, asset);
    const there = await this.db
      .select({ asset: handOvers.asset, device: handOvers.device })
      .from(handOvers)
      .where(eq(handOvers.course, course));
    const has = new Set(
      there.filter((one) => one.asset === asset).map(({ device }) => device ?? 'all'),
    );
    const known = new Map((await this.receivers(course)).map((one) => [one.id, one.name]));
    const rows = (to === 'all' ? ['all'] : [...new Set(to)])
      .filter((device) => !has.has(device))
      .map((device) => {
        const name = device === 'all' ? null : known.get(device);
        if (name === undefined) throw new ProblemError('not-found');
        const receiver = { device: device === 'all' ? null : device, name };
        return { id: newId(), course, asset, ...receiver, at: Date.now() };
      });
    if (there.length + rows.length > MOST) throw new ProblemError('too-many-hand-overs');
    if (rows.length > 0) await this.db.insert(handOvers).values(rows);
  }

  /** Who hasn't fetched it can't from now on. Resolves with its course; throws `not-found`. */
  async takeBack(tutor: Id, id: Id): Promise<Id> {
    const [row] = await this.db
      .select({ course: handOvers.course })
      .from(handOvers)
      .innerJoin(courses, eq(courses.id, handOvers.course))
      .where(and(eq(handOvers.id, id), eq(courses.tutor, tutor)));
    if (!row) throw new ProblemError('not-found');
    await this.db.delete(handOvers).where(eq(handOvers.id, id));
    return row.course;
  }

  /** What was handed to whom this browser is, in all courses, the newest first. */
  async to(device: string): Promise<HandedFile[]> {
    const names = await this.namesOf(device);
    if (names.size === 0) return [];
    const rows = await this.db
      .select({
        ...{ handOver: handOvers, asset: assets, bytes: files.bytes, course: courses.name },
        fetchedAt: handOverFetches.at,
      })
      .from(handOvers)
      .innerJoin(assets, eq(assets.id, handOvers.asset))
      .innerJoin(files, eq(files.hash, assets.file))
      .innerJoin(courses, eq(courses.id, handOvers.course))
      .leftJoin(
        handOverFetches,
        and(eq(handOverFetches.handOver, handOvers.id), eq(handOverFetches.device, device)),
      )
      .where(and(inArray(handOvers.course, [...names.keys()]), isNull(assets.removedAt)))
      .orderBy(desc(handOvers.at));
    const theirs = rows.filter(
      ({ handOver }) => handOver.device === null || handOver.device === device,
    );
    const seen = new Set<Id>();
    // Handed to them and to all, it is one file.
    return theirs
      .filter(({ asset }) => !seen.has(asset.id) && seen.add(asset.id))
      .map(({ handOver: { id, at }, asset: { name, kind }, bytes, course, fetchedAt }) => ({
        ...{ id, name, kind, bytes, course, at, fetchedAt },
      }));
  }

  /** The file of a hand-over, and notes that this browser has it. Throws `not-found`. */
  async fetch(device: string, id: Id): Promise<Handed> {
    const [row] = await this.db
      .select({ handOver: handOvers, asset: assets, type: files.type, tutor: courses.tutor })
      .from(handOvers)
      .innerJoin(assets, eq(assets.id, handOvers.asset))
      .innerJoin(files, eq(files.hash, assets.file))
      .innerJoin(courses, eq(courses.id, handOvers.course))
      .where(and(eq(handOvers.id, id), isNull(assets.removedAt)));
    const names = row && (await this.namesOf(device));
    const name = names?.get(row!.handOver.course);
    if (!row || name === undefined || (row.handOver.device ?? device) !== device)
      throw new ProblemError('not-found');
    // A file of another tutor may have been taken back meanwhile.
    await this.shares.usable(row.tutor, row.asset.id);
    await this.db
      .insert(handOverFetches)
      .values({ handOver: id, device, name, at: Date.now() })
      .onConflictDoNothing();
    const { file, name: fileName } = row.asset;
    return { file, type: row.type, name: fileName, course: row.handOver.course };
  }

  /** What this browser's student is called, by the courses in which they were let in. */
  private async namesOf(device: string): Promise<Map<Id, string>> {
    const rows = await this.db
      .select({ course: lessons.course, name: people.name })
      .from(people)
      .innerJoin(lessons, eq(lessons.id, people.lesson))
      .where(and(eq(people.device, device), eq(people.role, 'student'), eq(people.door, 'in')))
      .orderBy(asc(people.arrivedAt));
    return new Map(rows.map(({ course, name }) => [course, name]));
  }
}
