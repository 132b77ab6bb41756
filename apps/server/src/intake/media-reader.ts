import type { Workers } from '../workers/workers.js';
import type { MediaNews } from './media-worker.js';

/** What a sound or a film is can be told from its beginning and its end: an honest one takes some ms. */
const LIMIT = 8_000;

/** Reads stored sounds and films, on threads of their own. */
export class MediaReader {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./media-worker.js', import.meta.url), {
      ...{ name: 'inspectMedia', memory: { maxOldGenerationSizeMb: 256 }, threads: 2 },
    });
  }

  /** What one holds; one that can't be read within the limits is broken. */
  inspect(path: string): Promise<MediaNews> {
    return this.pool
      .run<MediaNews>({ path }, { signal: AbortSignal.timeout(LIMIT) })
      .catch(() => ({ kind: 'fault', fault: 'broken' }));
  }
}
