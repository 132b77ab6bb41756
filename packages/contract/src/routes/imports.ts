import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { BoardShape } from '../courses.js';
import { ImportReportShape } from '../import-report.js';
import { route } from '../route.js';

const ImportProblem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
});

const StateShape = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('waiting'), before: z.number() }),
  z.object({ kind: z.literal('converting') }),
  z.object({ kind: z.literal('board'), board: BoardShape }),
  z.object({ kind: z.literal('done'), board: BoardShape }),
  z.object({ kind: z.literal('failed'), problem: ImportProblem }),
]);

export const ReportShape = z.object({
  seen: z.boolean(),
  report: ImportReportShape,
});

export const prepareImport = route({
  method: 'POST',
  path: '/imports/ready',
  who: 'tutor',
  tag: 'slides',
  summary: 'Slides may be uploaded soon: what converts them is started meanwhile',
  answers: { 204: z.null() },
});

export const readImport = route({
  method: 'GET',
  path: '/imports/:job',
  who: 'tutor',
  tag: 'slides',
  summary: 'How far an import of slides is',
  params: z.object({ job: Id }),
  answers: { 200: StateShape },
});

export const cancelImport = route({
  method: 'POST',
  path: '/imports/:job/cancel',
  who: 'tutor',
  tag: 'slides',
  summary: 'Give an import of slides up',
  params: z.object({ job: Id }),
  answers: { 204: z.null() },
});

export const readImportReport = route({
  method: 'GET',
  path: '/boards/:board/report',
  who: 'tutor',
  tag: 'slides',
  summary: 'What changed when the slides of a board were imported',
  params: z.object({ board: Id }),
  answers: { 200: ReportShape.nullable() },
});

export const markReportSeen = route({
  method: 'POST',
  path: '/boards/:board/report/seen',
  who: 'tutor',
  tag: 'slides',
  summary: 'The report has been looked at',
  params: z.object({ board: Id }),
  answers: { 204: z.null() },
});
