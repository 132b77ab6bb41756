import { signal } from '@angular/core';
import { defer, lastValueFrom } from 'rxjs';
import type { Observable } from 'rxjs';
import { untilAborted } from '../../api/api';
import type { Download } from '../../api/api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { download } from '../../ui/download/download';

/** Something that is made and then saved on this machine; it can be stopped as long as it isn't done. */
export class Making {
  /** How far it is, from 0 to 1; `null` while nothing is made. */
  readonly part = signal<number | null>(null);
  readonly problem = signal<ProblemDetails | null>(null);
  private abort: AbortController | null = null;

  /** Says whether it was saved: stopped in the last moment, it isn't either. */
  async save(
    made: Observable<Download> | ((signal: AbortSignal) => Promise<Download>),
  ): Promise<boolean> {
    const abort = (this.abort = new AbortController());
    this.part.set(0);
    this.problem.set(null);
    try {
      const file = typeof made === 'function' ? defer(() => made(abort.signal)) : made;
      const { blob, name } = await lastValueFrom(file.pipe(untilAborted(abort.signal)));
      abort.signal.throwIfAborted();
      download(blob, name);
      return true;
    } catch (error) {
      if (!abort.signal.aborted) this.problem.set(problemOf(error));
      return false;
    } finally {
      if (this.abort === abort) this.part.set(null);
    }
  }

  stop(): void {
    this.abort?.abort();
  }
}
