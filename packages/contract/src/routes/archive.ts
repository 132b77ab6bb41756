import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { route } from '../route.js';
import { Zone } from '../time-zone.js';

export const Description = z.object({
  protected: z.array(z.string()).meta({
    description: 'PDFs whose makers have forbidden things, which their copies no longer do',
  }),
});
export type Description = z.infer<typeof Description>;

const OfStudent = z.object({ name: z.string().min(1).max(200) });

export const describeCourseArchive = route({
  method: 'GET',
  path: '/courses/:course/archive',
  who: 'tutor',
  tag: 'archive',
  summary: 'What has to be known before everything of a course is saved',
  params: z.object({ course: Id }),
  answers: { 200: Description },
});

export const describeStudentArchive = route({
  method: 'GET',
  path: '/students/archive',
  who: 'tutor',
  tag: 'archive',
  summary: 'What has to be known before everything of a student is saved',
  query: OfStudent,
  answers: { 200: Description },
});

export const downloadCourseArchive = route({
  method: 'GET',
  path: '/courses/:course/archive.zip',
  who: 'tutor',
  tag: 'archive',
  summary: 'Everything of a course as one archive: records, boards, materials, attendance, hours',
  params: z.object({ course: Id }),
  query: Zone,
  answers: 'bytes',
});

export const downloadStudentArchive = route({
  method: 'GET',
  path: '/students/archive.zip',
  who: 'tutor',
  tag: 'archive',
  summary: 'What a student wrote and said in this tutor’s lessons, as one archive',
  query: Zone.extend(OfStudent.shape),
  answers: 'bytes',
});
