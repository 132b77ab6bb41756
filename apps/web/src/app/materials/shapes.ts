import type { AssetShape, ShareShape } from '@cuaderno/contract/materials';
import type { Folder, Id } from '@cuaderno/core';

export type {
  AssetShape as AssetInfo,
  ShareShape as ShareInfo,
  UseShape as UseInfo,
} from '@cuaderno/contract/materials';

export interface ShelfInfo {
  readonly folders: readonly Folder[];
  readonly assets: readonly AssetShape[];
}

/** What another tutor shares. */
export type SharedShelf = ShelfInfo & {
  readonly owner: { readonly id: Id; readonly name: string };
};

export interface MaterialsInfo extends ShelfInfo {
  readonly shares: readonly ShareShape[];
  readonly shared: readonly SharedShelf[];
  /** How many items lie in the bin. */
  readonly binned: number;
}

/** Things that are moved, copied or removed together. */
export interface Choice {
  readonly folders: readonly Id[];
  readonly assets: readonly Id[];
}

export function countOf({ folders, assets }: Choice): number {
  return folders.length + assets.length;
}
