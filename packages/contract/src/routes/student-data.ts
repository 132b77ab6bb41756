import * as z from 'zod';
import { route } from '../route.js';
import { Deletion, DeletionWish, StudentData } from '../student-data.js';

export const readStudentData = route({
  method: 'POST',
  path: '/students/data',
  who: 'tutor',
  tag: 'student data',
  summary: 'What there is of students of a name, lesson by lesson',
  body: DeletionWish.pick({ name: true }),
  answers: { 200: StudentData },
});

export const deleteStudentData = route({
  method: 'POST',
  path: '/students/delete',
  who: 'tutor',
  tag: 'student data',
  summary: 'Delete a student’s data for good, with a report of what was done',
  body: DeletionWish,
  answers: { 200: Deletion },
});

export const listDeletions = route({
  method: 'GET',
  path: '/students/deletions',
  who: 'tutor',
  tag: 'student data',
  summary: 'Reports of what was deleted, the newest first',
  answers: { 200: z.object({ deletions: z.array(Deletion) }) },
});
