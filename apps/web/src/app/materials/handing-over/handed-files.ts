import { listHandedFiles } from '@cuaderno/contract/routes/handing-over';
import { computed, inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import type { HandedFile } from './shapes';

/** What tutors have handed to the person at this browser. */
@Injectable({ providedIn: 'root' })
export class HandedFiles {
  private readonly api = inject(Api);
  readonly files = signal<readonly HandedFile[]>([]);
  /** How many they haven't fetched yet. */
  readonly fresh = computed(
    () => this.files().filter(({ fetchedAt }) => fetchedAt === null).length,
  );

  /** Out of reach, what is known stays. */
  async load(): Promise<void> {
    const found = await firstValueFrom(this.api.call(listHandedFiles)).catch(() => null);
    if (found) this.files.set(found.files);
  }
}
