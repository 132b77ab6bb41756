/** A statement that Drizzle has no words for: see `Database.raw`. */
export interface Query {
  readonly sql: string;
  readonly params: unknown[];
}
