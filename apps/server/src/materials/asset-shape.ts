import type { AssetShape } from '@cuaderno/contract/materials';
import { previewOf } from './page-pictures.js';
import type { AssetRow } from './shelf.js';

/** A file as its tutor sees it. */
export function assetShape(row: AssetRow): AssetShape {
  const { id, folder, name, kind, file, bytes, pages, width, height, length, createdAt } = row;
  const asset = { id, folder, name, kind, file, bytes, pages, width, height, length, createdAt };
  return { ...asset, pictured: previewOf(row) !== null };
}
