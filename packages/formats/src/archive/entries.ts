import { unzipSync } from 'fflate';
import type { UnzipFileInfo } from 'fflate';

/** Why an archive isn't opened. */
export type ArchiveFault =
  /** It is no zip, or is cut off. */
  | 'broken'
  /** More than is taken, or packed so tightly that it is a trap. */
  | 'too-large'
  /** A path that leads out of it. */
  | 'unsafe';

export class ArchiveError extends Error {
  override readonly name = 'ArchiveError';
  constructor(
    readonly fault: ArchiveFault,
    message: string = fault,
  ) {
    super(message);
  }
}

export interface ArchiveLimits {
  /** Of all entries together when unpacked, in bytes. */
  readonly bytes: number;
  readonly entries: number;
}

/** How many times as large a packed entry may get: prose and numbers get 5 to 50 times. */
const MAX_RATIO = 200;
/** Entries smaller than this may be packed as tightly as they like, in bytes. */
const SMALL = 1_000_000;

/**
 * Entries of a zip that are asked for. Throws `ArchiveError` where any entry, asked for or not, goes
 * beyond the limits or out of the archive.
 */
export function entries(
  bytes: Uint8Array,
  limits: ArchiveLimits,
  wanted: (path: string) => boolean,
): Map<string, Uint8Array> {
  let count = 0;
  let total = 0;
  const filter = ({ name, size, originalSize }: UnzipFileInfo): boolean => {
    if (/^[/\\]|^[a-z]:|(^|[/\\])\.\.([/\\]|$)|\0/i.test(name))
      throw new ArchiveError('unsafe', name);
    total += originalSize;
    if (++count > limits.entries || total > limits.bytes) throw new ArchiveError('too-large');
    if (originalSize > SMALL && originalSize > size * MAX_RATIO)
      throw new ArchiveError('too-large');
    return wanted(name);
  };
  try {
    return new Map(Object.entries(unzipSync(bytes, { filter })));
  } catch (error) {
    throw error instanceof ArchiveError ? error : new ArchiveError('broken');
  }
}
