import type { Sheet } from '@cuaderno/contract/routes/handouts';
import { listHandouts, readHandoutPage } from '@cuaderno/contract/routes/handouts';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type * as z from 'zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';
import { previewOf } from './page-pictures.js';
import type { AssetRow } from './shelf.js';

/**
 * Students of a lesson look at what is shared with their course: page by page, as pictures with
 * their name across them.
 */
export const previewRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listHandouts),
    handler: async (request) => {
      const { lesson } = request.student;
      const shared = await app.shares.withCourse(lesson.course);
      return shared.flatMap(({ shelf }) =>
        shelf.folders
          .map(({ id, name }) => ({
            id,
            name,
            sheets: shelf.assets.filter(({ folder }) => folder === id).flatMap(sheetOf),
          }))
          .filter(({ sheets }) => sheets.length > 0),
      );
    },
  });

  app.route({
    ...served(readHandoutPage),
    handler: async (request, reply) => {
      const { lesson, person } = request.student;
      const { asset, page } = request.params;
      const find = async (): Promise<AssetRow> => {
        const shared = await app.shares.withCourse(lesson.course);
        const found = shared.flatMap(({ shelf }) => shelf.assets).find(({ id }) => id === asset);
        if (!found) throw new ProblemError('not-found');
        return found;
      };
      const row = await find();
      const state = app.slidePreviews.wanted(row);
      if (state === 'coming') throw new ProblemError('slides-coming');
      if (state === 'never') throw new ProblemError('slides-not-shown');
      const name = person.nameOrdinal > 1 ? `${person.name} ${person.nameOrdinal}` : person.name;
      const picture = await app.pagePictures.page(row, page, name);
      // Drawing takes a moment: what was taken back meanwhile isn't sent any more.
      await find();
      return reply.type('image/jpeg').header('cache-control', 'no-store').send(picture);
    },
  });
};

function sheetOf(row: AssetRow): z.infer<typeof Sheet>[] {
  const { id, name, kind, pages } = row;
  if (kind === 'sound' || kind === 'board') return [];
  // Slides are made ready when someone looks; of a film, a browser may have drawn no still.
  if (kind !== 'slides' && !previewOf(row)) return [];
  return [{ id, name, kind, pages: kind === 'pdf' || kind === 'slides' ? pages : 1 }];
}
