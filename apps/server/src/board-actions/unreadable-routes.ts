import { Id, nameOf } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { hostOf } from '../live/lesson-bus.js';

/** What something was that can't be read any more, as far as its row still says. */
const Kind = z.enum(['line', 'item', 'erasing', 'page', 'board', 'unknown']);

function kindOf(was: string | null): z.infer<typeof Kind> {
  if (was === null) return 'unknown';
  if (was.startsWith('ink.')) return 'line';
  if (was === 'items.remove' || was === 'items.restore') return 'erasing';
  if (was.startsWith('item')) return 'item';
  return was.startsWith('page') ? 'page' : 'board';
}

/** What of a board can't be read, since its bytes on the disk are damaged. */
export const unreadableRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/boards/:board/unreadable',
    {
      schema: {
        tags: ['boards'],
        summary: 'What can’t be read of a board any more: where it was, of whom and of when',
        params: z.object({ board: Id }),
        response: {
          200: z.object({
            entries: z.array(
              z.object({
                /** Its place in the board's log. */
                seq: z.number().int(),
                kind: Kind,
                page: Id.nullable(),
                by: z.string().nullable(),
                /** In ms since 1970; `null` where that can't be read either. */
                at: z.number().nullable(),
              }),
            ),
          }),
        },
      },
    },
    async ({ tutor, params }) => {
      const { id } = await app.boards.one(params.board, tutor.id);
      const { unreadable } = await hostOf(app.bus, id);
      // Who wrote is looked up in what is damaged: then nobody is named.
      const writers = unreadable.length > 0 ? await app.boardWriters.of(id).catch(() => []) : [];
      return {
        entries: unreadable.map(({ seq, by, at, op }) => {
          const writer = writers.find((one) => one.id === by);
          return {
            ...{ seq, kind: kindOf(op.was), page: op.page },
            by: writer ? nameOf(writer) : null,
            at: at || null,
          };
        }),
      };
    },
  );
};
