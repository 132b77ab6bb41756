import { SAID_SOURCES } from '@cuaderno/core';
import type { Id, RecordTimeline, SaidSource } from '@cuaderno/core';
import type { AppendixPart } from '@cuaderno/core/appendix';
import type { Database, Query } from '../../database/index.js';
import type { KeptFile, KeptLesson, Said } from './kept-part.js';
import { FEATURES } from './register.js';

/** A part of any feature: each is only ever given a whole timeline, in which its own is. */
interface AnyPart {
  readonly tables: readonly string[];
  read(db: Database, lesson: Id): Promise<Partial<RecordTimeline>>;
  said(timeline: RecordTimeline): readonly Said<SaidSource>[];
  of(timeline: RecordTimeline, people: ReadonlySet<Id>): Partial<RecordTimeline>;
  readonly files: readonly KeptFile<RecordTimeline>[];
  appendix(timeline: RecordTimeline, lesson: KeptLesson): AppendixPart | null;
  redact(people: string): readonly Query[];
  readonly count: Readonly<Partial<Record<SaidSource, string>>>;
  readonly mentions: readonly { readonly table: string; readonly column: string }[];
}

const parts: readonly AnyPart[] = Object.values(FEATURES).flatMap(({ kept }) => kept ?? []);

/** That in which it is said. */
function partOf(source: SaidSource): AnyPart {
  return parts.find(({ count }) => source in count)!;
}

/** What happened beside the pages of a lesson, in the order of time. */
export async function readTimeline(db: Database, lesson: Id): Promise<RecordTimeline> {
  return Object.assign({}, ...(await Promise.all(parts.map((part) => part.read(db, lesson)))));
}

/** Of it only what is by these people, or for them. */
export function timelineOf(timeline: RecordTimeline, people: ReadonlySet<Id>): RecordTimeline {
  return Object.assign({}, ...parts.map((part) => part.of(timeline, people)));
}

/** What was said in a lesson besides what is on its pages. */
export function saidIn(timeline: RecordTimeline): readonly Said<SaidSource>[] {
  return parts.flatMap((part) => part.said(timeline));
}

/** Files that are made of what features leave. */
export const KEPT_FILES: readonly KeptFile<RecordTimeline>[] = parts.flatMap(({ files }) => files);

/** What can follow the pages of a record of what was said there; `null` where nothing was. */
export function keptAppendix(
  source: SaidSource,
  timeline: RecordTimeline,
  lesson: KeptLesson,
): AppendixPart | null {
  return partOf(source).appendix(timeline, lesson);
}

/** Tables that are emptied with the account of a lesson's tutor: each has a column `lesson`. */
export const KEPT_TABLES: readonly string[] = parts.flatMap(({ tables }) => tables);

/** Takes out all that is by these people, or for them alone; `people` is a list of ids in JSON. */
export function redactKept(people: string): readonly Query[] {
  return parts.flatMap((part) => part.redact(people));
}

/** SQL that counts what a student said, by source: of person `p.id` in lesson `l.id`. */
export const SAID_COUNTS: readonly (readonly [SaidSource, string])[] = SAID_SOURCES.map(
  (source) => [source, partOf(source).count[source]!] as const,
);

/** Columns in which somebody may have named a student. */
export const KEPT_MENTIONS = parts.flatMap(({ mentions }) => mentions);
