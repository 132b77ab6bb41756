import { Id } from '@cuaderno/core';
import { ImportReportShape } from '@cuaderno/formats/slides-in/stored-report';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { BoardShape } from '@cuaderno/contract/courses';
import { ProblemError } from '../problems/index.js';

const tags = ['slides'];

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

const ReportShape = z.object({
  seen: z.boolean(),
  report: ImportReportShape,
});

export const slideRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);
  const params = z.object({ job: Id });

  app.post(
    '/imports/ready',
    {
      schema: {
        tags,
        summary: 'Slides may be brought soon: what converts them is started meanwhile',
        response: { 204: z.null() },
      },
    },
    async (_request, reply) => {
      app.office.prepare();
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/imports/:job',
    {
      schema: {
        tags,
        summary: 'How far an import of slides is',
        params,
        response: { 200: StateShape },
      },
    },
    async ({ tutor, params }) => {
      const state = app.importQueue.state(params.job, tutor.id);
      if (!state) throw new ProblemError('not-found');
      return state;
    },
  );

  app.post(
    '/imports/:job/cancel',
    {
      schema: { tags, summary: 'Give an import of slides up', params, response: { 204: z.null() } },
    },
    async ({ tutor, params }, reply) => {
      if (!app.importQueue.cancel(params.job, tutor.id)) throw new ProblemError('not-found');
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/boards/:board/report',
    {
      schema: {
        tags,
        summary: 'What changed when the slides of a board were brought in',
        params: z.object({ board: Id }),
        response: { 200: ReportShape.nullable() },
      },
    },
    async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      return (await app.reports.of(board.id)) as z.infer<typeof ReportShape> | null;
    },
  );

  app.post(
    '/boards/:board/report/seen',
    {
      schema: {
        tags,
        summary: 'The report has been looked at',
        params: z.object({ board: Id }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      await app.reports.seen(board.id);
      return reply.status(204).send(null);
    },
  );
};
