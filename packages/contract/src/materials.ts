import { Id } from '@cuaderno/core/id';
import { Asset } from '@cuaderno/core/materials';
import * as z from 'zod';

/** Longest name of a file, in characters as people count them. */
const MAX_NAME = 200;

/** What a file is called: in any script, without characters nobody sees, and without a path. */
export const FileName = z
  .string()
  .max(20_000)
  .transform((name) =>
    [
      ...name
        .normalize('NFC')
        .replace(/^.*[\\/]/u, '')
        .replace(/[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]/gu, ' ')
        .replace(/\s+/gu, ' ')
        .trim(),
    ]
      .slice(0, MAX_NAME)
      .join(''),
  )
  .refine((name) => name.length > 0, 'Please write a name.');

export const ChoiceShape = z.object({
  folders: z.array(Id).max(5000).default([]),
  assets: z.array(Id).max(5000).default([]),
});
export type ChoiceShape = z.infer<typeof ChoiceShape>;

/** A file as its tutor sees it. */
export const AssetShape = Asset.extend({
  /** Whether there is a small picture of it. */
  pictured: z.boolean(),
});
export type AssetShape = z.infer<typeof AssetShape>;

/** What is to be said of a file that was taken: what of it isn't as it was, or isn't seen everywhere. */
export const Remark = z.enum(['frames', 'html', 'some-browsers']);
export type Remark = z.infer<typeof Remark>;

/** A file that was uploaded (tus 1.0), as the last part of it is answered. */
export const UploadedAsset = AssetShape.extend({ remarks: z.array(Remark) });
export type UploadedAsset = z.infer<typeof UploadedAsset>;

export const ShareShape = z.object({
  id: Id,
  folder: Id,
  with: z.object({ kind: z.enum(['tutor', 'course']), id: Id, name: z.string() }),
});
export type ShareShape = z.infer<typeof ShareShape>;

export const UseShape = z.object({
  board: Id,
  title: z.string(),
  course: z.string(),
  pages: z.array(z.number()),
});
export type UseShape = z.infer<typeof UseShape>;
