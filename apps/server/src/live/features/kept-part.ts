import type { Attendance, RecordInfo } from '@cuaderno/contract/records';
import type { Id, KeptName, RecordPart, SaidSourceOf } from '@cuaderno/core';
import type { AppendixPart } from '@cuaderno/core/appendix';
import type { Database, Query } from '../../database/index.js';

/** Those in a list that is given as JSON. */
export const LISTED = 'IN (SELECT value FROM json_each(?))';

/** A lesson that is over, as files that are made of it say it. */
export interface KeptLesson {
  readonly record: Pick<RecordInfo, 'courseName' | 'title' | 'openedAt' | 'closedAt'>;
  readonly people: readonly Attendance[];
  /** IANA name of the time zone in which times are said. */
  readonly zone: string;
}

/** A piece of what was said, and where. */
export interface Said<Source extends string> {
  readonly source: Source;
  readonly said: string;
}

/** A file that is made of what a feature leaves: saved by itself, and part of an archive. */
export interface KeptFile<Part> {
  /** As it is called in an archive and in the address, and how that ends: `chat`, `.txt`. */
  readonly name: string;
  readonly ending: string;
  /** Its media type. */
  readonly type: string;
  /** Whether there is nothing to be said in it: then an archive has none. */
  isEmpty(part: Part): boolean;
  write(part: Part, lesson: KeptLesson): string;
}

/**
 * All that is on disk of a live feature: how it comes into a lesson's record, is found, saved and archived, and what the
 * deletion of a student's data and of an account takes of it. None of it can be left out: anyone who adds a feature that
 * leaves something is asked for each by the compiler.
 */
export interface KeptPart<Name extends KeptName> {
  /** Its tables. Each has a column `lesson`; all of them are emptied with the account of its tutor. */
  readonly tables: readonly string[];
  /** What lies in the record of a lesson, in order of time. */
  read(db: Database, lesson: Id): Promise<RecordPart<Name>>;
  /** What somebody said in it, piece by piece: by that the record is found. */
  said(part: RecordPart<Name>): readonly Said<SaidSourceOf<Name>>[];
  /** Of it only what is by these people, or for them: a student's own archive has no more. */
  of(part: RecordPart<Name>, people: ReadonlySet<Id>): RecordPart<Name>;
  readonly files: readonly KeptFile<RecordPart<Name>>[];
  /** Pages that can follow a record in its PDF; `null` where there are none, or nothing to say on them. */
  appendix(part: RecordPart<Name>, lesson: KeptLesson): AppendixPart | null;
  /** Takes all of it that is by these people, or for them alone; their ids stand for `people`, a list in JSON. */
  redact(people: string): readonly Query[];
  /** SQL that counts the pieces by a person, or for them alone, of each source: of person `p.id` in lesson `l.id`. */
  readonly count: { readonly [Source in SaidSourceOf<Name>]: string };
  /** Columns in which somebody may have named a student. */
  readonly mentions: readonly { readonly table: string; readonly column: string }[];
}
