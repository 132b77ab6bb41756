import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { SharedList, SharedRecord } from '../record-links.js';
import { route } from '../route.js';
import { Zone } from '../time-zone.js';

const token = z.string().max(64);

export const listSharedRecords = route({
  method: 'GET',
  path: '/shared/:token',
  who: 'link',
  tag: 'shared',
  summary: 'What a link leads to; this counts as an opening',
  params: z.object({ token }),
  answers: { 200: SharedList },
});

export const readSharedState = route({
  method: 'GET',
  path: '/shared/:token/state',
  who: 'link',
  tag: 'shared',
  summary: 'Whether a link is still open',
  params: z.object({ token }),
  answers: { 204: z.null() },
});

export const readSharedRecord = route({
  method: 'GET',
  path: '/shared/:token/records/:lesson',
  who: 'link',
  tag: 'shared',
  summary: 'A record as a link shows it',
  params: z.object({ token, lesson: Id }),
  answers: { 200: SharedRecord },
});

export const readSharedPage = route({
  method: 'GET',
  path: '/shared/:token/records/:lesson/pages/:number',
  who: 'link',
  tag: 'shared',
  summary: 'A page of a record as a picture (JPEG)',
  params: z
    .object({ token, lesson: Id })
    .extend({ number: z.coerce.number().int().min(1).max(10_000) }),
  answers: 'bytes',
});

export const downloadSharedPdf = route({
  method: 'GET',
  path: '/shared/:token/records/:lesson/pdf',
  who: 'link',
  tag: 'shared',
  summary: 'A record as a PDF, where the link is for more than looking',
  params: z.object({ token, lesson: Id }),
  query: Zone,
  answers: 'bytes',
});
