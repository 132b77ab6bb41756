import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { route } from '../route.js';

/** What students see of a file: nothing by which they could get it. */
export const Sheet = z.object({
  id: Id,
  name: z.string(),
  kind: z.enum(['pdf', 'slides', 'picture', 'film']),
  /** `null` for slides that are being made ready. */
  pages: z.number().nullable(),
});

export const listHandouts = route({
  method: 'GET',
  path: '/lesson/materials',
  who: 'student',
  tag: 'materials',
  summary: 'What the students of this lesson’s course may look at',
  answers: {
    200: z.array(z.object({ id: Id, name: z.string(), sheets: z.array(Sheet) })),
  },
});

export const readHandoutPage = route({
  method: 'GET',
  path: '/lesson/materials/:asset/pages/:page',
  who: 'student',
  tag: 'materials',
  summary: 'A page to look at, as JPEG, with the student’s name across it',
  params: z.object({ asset: Id, page: z.coerce.number().int().min(1).max(10_000) }),
  answers: 'bytes',
});
