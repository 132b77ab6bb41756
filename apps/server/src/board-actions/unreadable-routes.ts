import type { Kind } from '@cuaderno/contract/routes/boards';
import { listUnreadable } from '@cuaderno/contract/routes/boards';
import { nameOf } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type * as z from 'zod';
import { served } from '../contract/served.js';
import { hostOf } from '../live/lesson-bus.js';

function kindOf(was: string | null): z.infer<typeof Kind> {
  if (was === null) return 'unknown';
  if (was.startsWith('ink.')) return 'line';
  if (was === 'items.remove' || was === 'items.restore') return 'erasing';
  if (was.startsWith('item')) return 'item';
  return was.startsWith('page') ? 'page' : 'board';
}

/** What of a board can't be read, since its bytes on the disk are damaged. */
export const unreadableRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listUnreadable),
    handler: async ({ tutor, params }) => {
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
  });
};
