/** What is stored: each is read by itself somewhere. */
export interface Stored {
  /** An operation, as a log has it. */
  readonly operation: unknown;
  /** What an item is, with or without what the log knows of it. */
  readonly item: unknown;
  /** A page, without what lies on it. */
  readonly page: unknown;
  /** Somebody who wrote on a board, as a board file names them. */
  readonly writer: unknown;
}

/**
 * From one version to the next. What is given was read from a disk and isn't checked yet: a step says in new words
 * what it knows, never throws, and leaves everything else as it is, for the schema to refuse.
 */
export type UpgradeStep = { readonly [Kind in keyof Stored]: (value: unknown) => unknown };
