import type { Answer } from '@cuaderno/contract/route';
import type { listMaterials } from '@cuaderno/contract/routes/materials';
import type { Id } from '@cuaderno/core/id';

export type {
  AssetShape as AssetInfo,
  ShareShape as ShareInfo,
  UseShape as UseInfo,
} from '@cuaderno/contract/materials';

/** All materials there are for a tutor. */
export type MaterialsInfo = Answer<typeof listMaterials>;
/** What another tutor shares. */
export type SharedShelf = MaterialsInfo['shared'][number];
export type ShelfInfo = Pick<MaterialsInfo, 'folders' | 'assets'>;

/** Things that are moved, copied or removed together. */
export interface Choice {
  readonly folders: readonly Id[];
  readonly assets: readonly Id[];
}

export function countOf({ folders, assets }: Choice): number {
  return folders.length + assets.length;
}
