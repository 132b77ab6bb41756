/** A version of something written that is amended in sight: each says which it follows. */
export interface Version {
  readonly id: string;
  readonly follows: string | null;
}

/** The version that none follows; `null` where there is none. */
export function newestOf<V extends Version>(versions: readonly V[]): V | null {
  const followed = new Set(versions.map(({ follows }) => follows));
  return versions.find(({ id }) => !followed.has(id)) ?? null;
}
