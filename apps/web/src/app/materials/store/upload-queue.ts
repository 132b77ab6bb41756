import type { Remark } from '@cuaderno/contract/materials';
import { keepAssetStill } from '@cuaderno/contract/routes/materials';
import type { Id } from '@cuaderno/core/id';
import { computed, inject, Injectable, signal } from '@angular/core';
import PQueue from 'p-queue';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import { posterOf } from '../media-preview/media-preview';
import { brokenOff, MaterialUpload } from './material-upload';
import { MaterialsStore } from './materials-store';

/** How many files are sent at the same time. */
const AT_ONCE = 3;

/** Files that are sent to materials: one goes on with other work meanwhile, on any screen. */
@Injectable({ providedIn: 'root' })
export class UploadQueue {
  private readonly api = inject(Api);
  private readonly store = inject(MaterialsStore);
  /** Those on their way and those that can't be taken, in the order in which they came. */
  readonly uploads = signal<readonly MaterialUpload[]>([]);
  /** How many came whole since the last time nothing was on its way. */
  readonly done = signal(0);
  /** Names of files that broke off in an earlier visit. */
  readonly broken = signal<readonly string[]>([]);
  /** Those that came of which something is to be said, until that is read. */
  readonly remarked = signal<readonly { name: string; remarks: readonly Remark[] }[]>([]);
  private readonly queue = new PQueue({ concurrency: AT_ONCE });

  readonly under = computed(() => this.uploads().filter((one) => one.state() !== 'failed'));
  readonly failed = computed(() => this.uploads().filter((one) => one.state() === 'failed'));
  /** How far all of them are together, by their bytes, from 0 to 1. */
  readonly part = computed(() => {
    const under = this.under();
    const all = under.reduce((sum, { file }) => sum + file.size, 0);
    const sent = under.reduce((sum, one) => sum + one.file.size * one.part(), 0);
    return all > 0 ? sent / all : 0;
  });

  async lookForBroken(): Promise<void> {
    const names = (await brokenOff().catch(() => [])).map(({ name }) => name);
    const under = new Set(this.under().map(({ file }) => file.name));
    this.broken.set(names.filter((name) => !under.has(name)));
  }

  async forgetBroken(): Promise<void> {
    for (const { name, forget } of await brokenOff())
      if (this.broken().includes(name)) await forget();
    this.broken.set([]);
  }

  send(files: readonly File[], folder: Id | null): void {
    if (this.under().length === 0) this.done.set(0);
    const fresh = files.map((file) => new MaterialUpload(file, folder));
    const names = new Set(files.map(({ name }) => name));
    this.broken.update((list) => list.filter((name) => !names.has(name)));
    this.uploads.update((list) => [...list, ...fresh]);
    for (const upload of fresh) this.enqueue(upload);
  }

  stop(upload: MaterialUpload): void {
    void upload.stop();
    this.uploads.update((list) => list.filter((one) => one !== upload));
  }

  stopAll(): void {
    for (const upload of this.under()) this.stop(upload);
  }

  again(upload: MaterialUpload): void {
    upload.state.set('waiting');
    this.enqueue(upload);
  }

  private enqueue(upload: MaterialUpload): void {
    void this.queue.add(() => this.run(upload));
  }

  private async run(upload: MaterialUpload): Promise<void> {
    const asset = await upload.run();
    if (!asset) return;
    if (asset.kind === 'film' && !asset.pictured) {
      const still = await posterOf(upload.file);
      // Only a picture: the film is there to go by.
      if (still)
        await firstValueFrom(
          this.api.call(keepAssetStill, { params: { asset: asset.id }, body: still }),
        ).catch(() => undefined);
    }
    if (upload.remarks.length > 0)
      this.remarked.update((all) => [...all, { name: upload.file.name, remarks: upload.remarks }]);
    this.uploads.update((list) => list.filter((one) => one !== upload));
    this.done.update((n) => n + 1);
    await this.store.load();
  }
}
