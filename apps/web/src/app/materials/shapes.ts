import type { Asset, Folder, Id } from '@cuaderno/core';

/** A file as the server tells of it. */
export type AssetInfo = Asset & {
  /** Whether there is a small picture of it. */
  readonly pictured: boolean;
};

export interface ShelfInfo {
  readonly folders: readonly Folder[];
  readonly assets: readonly AssetInfo[];
}

/** Whom a folder is shared with. */
export interface ShareInfo {
  readonly id: Id;
  readonly folder: Id;
  readonly with: {
    readonly kind: 'tutor' | 'course';
    readonly id: Id;
    readonly name: string;
  };
}

/** What another tutor shares. */
export type SharedShelf = ShelfInfo & {
  readonly owner: { readonly id: Id; readonly name: string };
};

export interface MaterialsInfo extends ShelfInfo {
  readonly shares: readonly ShareInfo[];
  readonly shared: readonly SharedShelf[];
  /** How many things lie in the bin. */
  readonly binned: number;
}

/** Things that are moved, copied or removed together. */
export interface Choice {
  readonly folders: readonly Id[];
  readonly assets: readonly Id[];
}

export interface UseInfo {
  readonly board: Id;
  readonly title: string;
  readonly course: string;
  /** Numbers of its pages, from 1. */
  readonly pages: readonly number[];
}

export function countOf({ folders, assets }: Choice): number {
  return folders.length + assets.length;
}
