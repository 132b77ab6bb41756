import type { Id } from '@cuaderno/core';

/** A student of a course who was let in once. */
export interface Receiver {
  readonly id: string;
  readonly name: string;
  readonly here: boolean;
}

/** What was handed over, as its tutor sees it. */
export interface HandOver {
  readonly id: Id;
  readonly asset: Id;
  readonly fileName: string;
  /** To whom; `null` where all students of the course may have it. */
  readonly to: string | null;
  readonly at: number;
  readonly fetched: readonly { readonly name: string; readonly at: number }[];
}

export interface HandOvers {
  readonly students: readonly Receiver[];
  readonly handOvers: readonly HandOver[];
}

/** What was handed to a student, as they see it. */
export interface HandedFile {
  readonly id: Id;
  readonly name: string;
  readonly kind: 'pdf' | 'slides' | 'board' | 'picture' | 'sound' | 'film';
  readonly bytes: number;
  readonly course: string;
  readonly at: number;
  readonly fetchedAt: number | null;
}
