import type { Id } from '@cuaderno/core';

/** A file that may be looked at: nothing by which it could be had. */
export interface ReadSheet {
  readonly id: Id;
  readonly name: string;
  readonly kind: 'pdf' | 'slides' | 'picture' | 'film';
  /** `null` for slides that are being made ready. */
  readonly pages: number | null;
}

/** A folder of them. */
export interface ReadFolder {
  readonly id: Id;
  readonly name: string;
  readonly sheets: readonly ReadSheet[];
}
