import * as z from 'zod';
import { FileHash, Id } from '../id/index.js';

/** What a file is, by its content: what can be laid on pages, and what boards are made of. */
export const AssetKind = z.enum(['pdf', 'slides', 'board', 'picture', 'sound', 'film']);
export type AssetKind = z.infer<typeof AssetKind>;

/** A folder of a tutor's files. */
export const Folder = z.object({
  id: Id,
  /** The folder that it lies in; `null` at the top. */
  parent: Id.nullable(),
  name: z.string(),
});
export type Folder = z.infer<typeof Folder>;

/** A file of a tutor. The same content may be several, in different folders; it is stored once. */
export const Asset = z.object({
  id: Id,
  /** `null` at the top. */
  folder: Id.nullable(),
  name: z.string(),
  kind: AssetKind,
  file: FileHash,
  bytes: z.number().int().min(0),
  /** Pages of a PDF; `null` of anything else. */
  pages: z.number().int().min(0).nullable(),
  /** In pixels, of pictures and films; else 0. */
  width: z.number().min(0),
  height: z.number().min(0),
  /** In seconds, of sounds and films; else 0. */
  length: z.number().min(0),
  /** ms since 1970 */
  createdAt: z.number(),
});
export type Asset = z.infer<typeof Asset>;

/** Whether a file can be laid on a page as it is. */
export function canBeLaid({ kind }: Pick<Asset, 'kind'>): boolean {
  return kind === 'picture' || kind === 'sound' || kind === 'film';
}
