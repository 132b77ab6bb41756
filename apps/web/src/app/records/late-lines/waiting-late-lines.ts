import {
  decideLateLines,
  listLateLines,
  readLateLines,
} from '@cuaderno/contract/routes/late-lines';
import { unpack } from '@cuaderno/core/wire';
import type { Operation } from '@cuaderno/core/ops';
import { inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import type { LateLines, LateWay } from './shapes';

/** What late lines may cost to read: as much as the server keeps of one student. */
const LIMITS = { bytes: 10_000_000, values: 2_000_000, text: 10_000_000, depth: 16 };

/** Late lines that wait for the tutor who is signed in. */
@Injectable({ providedIn: 'root' })
export class WaitingLateLines {
  private readonly api = inject(Api);
  readonly list = signal<readonly LateLines[]>([]);
  private round = 0;

  /** Out of reach, what is known stays. */
  async load(): Promise<void> {
    const round = ++this.round;
    const found = await firstValueFrom(this.api.call(listLateLines)).catch(() => null);
    if (found && round === this.round) this.list.set(found.waiting);
  }

  /** What they are, in the order in which they were written. Throws `ApiError`. */
  async look({ lesson, person, board }: LateLines): Promise<readonly Operation[]> {
    return unpack(
      await firstValueFrom(this.api.call(readLateLines, { params: { lesson, person, board } })),
      LIMITS,
    ) as Operation[];
  }

  /** Those without a page to lie on wait on. Throws `ApiError`. */
  async settle({ lesson, person, board }: LateLines, to: LateWay): Promise<void> {
    await firstValueFrom(
      this.api.call(decideLateLines, { params: { lesson, person, board }, body: { to } }),
    );
    await this.load();
  }

  /** Somebody signs out: the next tutor in this window sees no names of theirs. */
  forget(): void {
    this.round++;
    this.list.set([]);
  }
}
