import { ANY_STUDENT, maySee, packTogether, projectFor, same } from '@cuaderno/core';
import type { Audience, Board, Entry, Id, ProjectedEntry, Viewer } from '@cuaderno/core';
import { runs } from './commit.js';
import type { TakenOperation } from './commit.js';

/** The end of a stroke under way, packed. */
export interface End {
  readonly bytes: Uint8Array;
  /** Who was shown the stroke. */
  readonly audience: Audience;
}

/**
 * What students are sent of an operation: nearly always all of them the same.
 * @param before what `hiddenOf` said before it
 * @param after the board after it
 * @param to who has the board open
 */
export function projectEntry(
  entry: Entry,
  before: ReadonlySet<Id>,
  after: Board,
  to: Iterable<{ readonly viewer: Viewer }>,
): Pick<TakenOperation, 'told' | 'toldApart'> {
  const op = projectFor(entry.op, before, after, ANY_STUDENT);
  const toldApart = new Map<Id, ProjectedEntry>();
  for (const { viewer } of to) {
    if (maySee(viewer, 'tutors') || toldApart.has(viewer.id)) continue;
    const theirs = projectFor(entry.op, before, after, viewer);
    if (theirs !== op && !same(theirs, op)) toldApart.set(viewer.id, { ...entry, op: theirs });
  }
  return { told: { ...entry, op }, toldApart };
}

/**
 * A run of entries as each viewer is sent it. Those who are sent the same are sent the same bytes: what was packed for
 * one is kept for the others.
 */
export function packedFor(
  on: number,
  run: readonly TakenOperation[],
  ends: readonly End[],
): (viewer: Viewer) => readonly Uint8Array[] {
  const packed = new Map<string, readonly Uint8Array[]>();
  const whole = runs(
    on,
    run.map(({ entry }) => entry),
  );
  // Mostly tutors and students are told the same.
  const alike = run.every(({ entry, told }) => told.op === entry.op);
  const forStudents = alike
    ? whole
    : runs(
        on,
        run.map(({ told }) => told),
      );
  const apart = new Set(run.flatMap(({ toldApart }) => [...toldApart.keys()]));
  const areEndsApart = ends.some(({ audience }) => typeof audience === 'object');

  return (viewer) => {
    const isApart = apart.has(viewer.id);
    const isAlone = isApart || areEndsApart;
    const key = maySee(viewer, 'tutors') ? 'tutors' : isAlone ? viewer.id : 'students';
    const known = packed.get(key);
    if (known) return known;
    const theirs = isApart
      ? runs(
          on,
          run.map(({ told, toldApart }) => toldApart.get(viewer.id) ?? told),
        )
      : forStudents;
    const bytes = withEnds(
      ends.filter(({ audience }) => maySee(viewer, audience)),
      key === 'tutors' ? whole : theirs,
    );
    packed.set(key, bytes);
    return bytes;
  };
}

/** Packed messages of entries with the ends that come before them, as one where there are any: each is a packet. */
function withEnds(ends: readonly End[], entries: readonly Uint8Array[]): readonly Uint8Array[] {
  const [first, ...rest] = entries;
  if (ends.length === 0 || !first) return entries;
  return [packTogether([...ends.map(({ bytes }) => bytes), first]), ...rest];
}
