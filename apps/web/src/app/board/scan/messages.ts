import type { Quad } from '@cuaderno/core/scan';

/** What is asked of the thread that straightens pictures. */
export type ScanTask =
  | { readonly kind: 'find'; readonly picture: Blob }
  /** Of the picture in which paper was looked for. */
  | { readonly kind: 'flatten'; readonly corners: Quad };

/** What it answers. Sizes and corners are in pixels of the picture. */
export type ScanNews =
  | {
      readonly kind: 'found';
      readonly corners: Quad;
      readonly width: number;
      readonly height: number;
    }
  | { readonly kind: 'flat'; readonly picture: Blob }
  | { readonly kind: 'fault' };
