import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { LinkWish, RecordLink } from '../record-links.js';
import { route } from '../route.js';
import { Zone } from '../time-zone.js';

export const listRecordLinks = route({
  method: 'GET',
  path: '/courses/:course/record-links',
  who: 'tutor',
  tag: 'record-links',
  summary: 'Links by which records of a course are seen, and every opening of them',
  params: z.object({ course: Id }),
  query: z.object({ lesson: Id.optional() }),
  answers: { 200: z.object({ links: z.array(RecordLink) }) },
});

export const createRecordLink = route({
  method: 'POST',
  path: '/courses/:course/record-links',
  who: 'tutor',
  tag: 'record-links',
  summary: 'Make a link to one record, or to all of a course; with an address, it is sent there',
  params: z.object({ course: Id }),
  body: LinkWish.extend({ lesson: Id.nullable(), zone: Zone.shape.zone }),
  answers: { 201: RecordLink },
});

export const withdrawRecordLink = route({
  method: 'POST',
  path: '/record-links/:link/withdraw',
  who: 'tutor',
  tag: 'record-links',
  summary: 'Withdraw a link: it opens nothing from here on, wherever it is open',
  params: z.object({ link: Id }),
  answers: { 204: z.null() },
});
