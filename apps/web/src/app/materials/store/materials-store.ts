import {
  copyMaterials,
  createFolder,
  emptyBin,
  listBin,
  listMaterials,
  listUses,
  moveMaterials,
  removeMaterials,
  renameAsset,
  renameFolder,
  restoreMaterials,
  shareFolder,
  takeBackShare,
} from '@cuaderno/contract/routes/materials';
import type { Id } from '@cuaderno/core/id';
import type { Folder } from '@cuaderno/core/materials';
import { computed, inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { Observable } from 'rxjs';
import { Api } from '../../api/api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Choice, MaterialsInfo, ShareInfo, ShelfInfo, UseInfo } from './shapes';

const EMPTY: MaterialsInfo = { folders: [], assets: [], shares: [], shared: [], binned: 0 };

/** All materials of the tutor who is signed in, as the server has them. */
@Injectable({ providedIn: 'root' })
export class MaterialsStore {
  private readonly api = inject(Api);
  private readonly info = signal<MaterialsInfo>(EMPTY);
  /** Whether anything is known yet. */
  readonly ready = signal(false);
  readonly problem = signal<ProblemDetails | null>(null);
  readonly folders = computed(() => this.info().folders);
  readonly assets = computed(() => this.info().assets);
  readonly shared = computed(() => this.info().shared);
  readonly binned = computed(() => this.info().binned);
  /** Whom folders are shared with, by folder. */
  readonly shares = computed(() => {
    const shares = new Map<Id, ShareInfo[]>();
    for (const share of this.info().shares)
      shares.set(share.folder, [...(shares.get(share.folder) ?? []), share]);
    return shares;
  });

  private loading: Promise<void> | null = null;
  private again = false;

  /** Asks what there is; anyone who asks meanwhile is answered by one further question. */
  async load(): Promise<void> {
    if (this.loading) {
      this.again = true;
      return this.loading;
    }
    this.loading = (async () => {
      do {
        this.again = false;
        await this.try(() => this.renew());
      } while (this.again);
      this.loading = null;
    })();
    return this.loading;
  }

  /** Forgets everything: someone else may sign in. */
  forget(): void {
    this.info.set(EMPTY);
    this.ready.set(false);
  }

  bin(): Promise<ShelfInfo> {
    return firstValueFrom(this.api.call(listBin));
  }

  uses(choice: Choice): Promise<readonly UseInfo[]> {
    return firstValueFrom(this.api.call(listUses, { body: choice }));
  }

  async makeFolder(name: string, parent: Id | null): Promise<Folder | null> {
    let made: Folder | null = null;
    await this.try(async () => {
      made = await firstValueFrom(this.api.call(createFolder, { body: { name, parent } }));
      await this.renew();
    });
    return made;
  }

  nameFolder(id: Id, name: string): Promise<boolean> {
    return this.change(this.api.call(renameFolder, { params: { folder: id }, body: { name } }));
  }

  nameAsset(id: Id, name: string): Promise<boolean> {
    return this.change(this.api.call(renameAsset, { params: { asset: id }, body: { name } }));
  }

  move(choice: Choice, to: Id | null): Promise<boolean> {
    return this.change(this.api.call(moveMaterials, { body: { ...choice, to } }));
  }

  copy(choice: Choice, to: Id | null): Promise<boolean> {
    return this.change(this.api.call(copyMaterials, { body: { ...choice, to } }));
  }

  remove(choice: Choice): Promise<boolean> {
    return this.change(this.api.call(removeMaterials, { body: choice }));
  }

  restore(choice: Choice): Promise<boolean> {
    return this.change(this.api.call(restoreMaterials, { body: choice }));
  }

  emptyBin(): Promise<boolean> {
    return this.change(this.api.call(emptyBin));
  }

  /** Throws `ApiError`: who shares says what went wrong where they do it. */
  async share(folder: Id, kind: 'tutor' | 'course', id: Id): Promise<void> {
    const asked = { params: { folder }, body: { kind, id } };
    await firstValueFrom(this.api.call(shareFolder, asked));
    await this.renew();
  }

  /** Throws `ApiError`. */
  async takeBack(share: Id): Promise<void> {
    await firstValueFrom(this.api.call(takeBackShare, { params: { share } }));
    await this.renew();
  }

  /** Asks anew what there is. Throws `ApiError`. */
  async renew(): Promise<void> {
    this.info.set(await firstValueFrom(this.api.call(listMaterials)));
    this.ready.set(true);
  }

  private change(asked: Observable<unknown>): Promise<boolean> {
    return this.try(async () => {
      await firstValueFrom(asked);
      await this.renew();
    });
  }

  private async try(what: () => Promise<void>): Promise<boolean> {
    this.problem.set(null);
    try {
      await what();
      return true;
    } catch (error) {
      this.problem.set(problemOf(error));
      return false;
    }
  }
}
