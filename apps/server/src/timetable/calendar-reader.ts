import type { Workers } from '../workers/workers.js';
import type { CalendarNews, CalendarTask } from './calendar-worker.js';

/** Longest that reading one may take, in ms. */
const LIMIT = 15_000;

/** Reads calendars that were sent, on a thread of their own. */
export class CalendarReader {
  private readonly pool;

  constructor(workers: Workers) {
    this.pool = workers.pool(new URL('./calendar-worker.js', import.meta.url), {
      ...{ name: 'readCalendar', memory: { maxOldGenerationSizeMb: 256 } },
    });
  }

  /** What can be planned of a calendar; one that can't be read within the limits is too large. */
  read(task: CalendarTask): Promise<CalendarNews> {
    return this.pool
      .run<CalendarNews>(task, { signal: AbortSignal.timeout(LIMIT) })
      .catch(() => ({ kind: 'fault', fault: 'too-large' }));
  }
}
