import { FileHash } from '@cuaderno/core/id';
import * as z from 'zod';
import { route } from '../route.js';

/** Longest sides of page pictures, in pixels: so few that what one window asked for serves the next. */
export const PICTURE_SIDES = [540, 720, 960, 1440] as const;

export const readFile = route({
  method: 'GET',
  path: '/files/:hash',
  who: 'reader',
  tag: 'files',
  summary: 'A stored file, whole or in byte ranges, for those who may see its board',
  params: z.object({ hash: FileHash }),
  answers: 'bytes',
});

export const readPagePicture = route({
  method: 'GET',
  path: '/files/:hash/pages/:page',
  who: 'reader',
  tag: 'files',
  summary: 'A page of a stored PDF as WebP: for lines on which the file and its reader take long',
  params: z.object({ hash: FileHash, page: z.coerce.number().int().min(1).max(10_000) }),
  query: z.object({
    side: z.coerce
      .number()
      .refine((side) => PICTURE_SIDES.some((known) => known === side), 'one of a few sides'),
  }),
  answers: 'bytes',
});
