import type { ShelfShape } from '@cuaderno/contract/routes/materials';
import {
  copyMaterials,
  createBoardOfAsset,
  createFolder,
  emptyBin,
  insertAssetPages,
  keepAssetStill,
  listBin,
  listMaterials,
  listUses,
  moveMaterials,
  readAssetPicture,
  removeMaterials,
  renameAsset,
  renameFolder,
  restoreMaterials,
  useAsset,
} from '@cuaderno/contract/routes/materials';
import { canBeLaid } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import type * as z from 'zod';
import { served } from '../contract/served.js';
import type { StoredFile } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import type { Arrivals } from './arrivals.js';
import { assetShape } from './asset-shape.js';
import type { LibraryEdits } from './library-edits.js';
import type { PagePictures } from './page-pictures.js';
import type { Materials } from './service.js';
import type { Shares } from './shares.js';
import type { AssetRow, Shelf } from './shelf.js';
import type { SlidePreviews } from './slide-previews.js';
import type { Uploads } from './uploads.js';
import type { Uses } from './uses.js';

declare module 'fastify' {
  interface FastifyInstance {
    materials: Materials;
    shares: Shares;
    arrivals: Arrivals;
    uploads: Uploads;
    uses: Uses;
    pagePictures: PagePictures;
    slidePreviews: SlidePreviews;
    libraryEdits: LibraryEdits;
  }
}

/** Largest still of a film, in bytes. */
const MAX_STILL = 4 * 1024 * 1024;
/** A tutor's files in their folders. */
export const materialRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  const shapeOf = (shelf: Pick<Shelf, 'folders' | 'assets'>): z.infer<typeof ShelfShape> => ({
    folders: shelf.folders.map(({ id, parent, name }) => ({ id, parent, name })),
    assets: shelf.assets.map(assetShape),
  });

  const storedFile = ({ file: hash, bytes }: AssetRow): StoredFile => ({
    hash,
    bytes,
    path: app.files.path(hash),
  });

  app.route({
    ...served(listMaterials),
    handler: async ({ tutor }) => {
      app.pdfReader.expect();
      const shelf = await app.materials.shelf(tutor.id);
      const { bin } = shelf;
      const shared = await app.shares.withTutor(tutor.id);
      return {
        ...shapeOf(shelf),
        shares: await app.shares.of(shelf),
        shared: shared.map(({ owner, shelf: theirs }) => ({ owner, ...shapeOf(theirs) })),
        binned: bin.folders.length + bin.assets.length,
      };
    },
  });

  app.route({
    ...served(listBin),
    handler: async ({ tutor }) => shapeOf((await app.materials.shelf(tutor.id)).bin),
  });

  app.route({
    ...served(emptyBin),
    handler: async ({ tutor }, reply) => {
      await app.pagePictures.forget(await app.libraryEdits.emptyBin(tutor.id));
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(createFolder),
    handler: async ({ tutor, body }, reply) => {
      const { id, parent, name } = await app.materials.makeFolder(tutor.id, body.parent, body.name);
      return reply.status(201).send({ id, parent, name });
    },
  });
  app.route({
    ...served(renameFolder),
    handler: async ({ tutor, params, body }, reply) => {
      await app.libraryEdits.nameFolder(tutor.id, params.folder, body.name);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(renameAsset),
    handler: async ({ tutor, params, body }, reply) => {
      await app.libraryEdits.nameAsset(tutor.id, params.asset, body.name);
      return reply.status(204).send(null);
    },
  });
  app.route({
    ...served(moveMaterials),
    handler: async ({ tutor, body }, reply) => {
      await app.libraryEdits.move(tutor.id, body, body.to);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(copyMaterials),
    handler: async ({ tutor, body }, reply) => {
      const own = await app.materials.shelf(tutor.id);
      const shared = await app.shares.withTutor(tutor.id);
      const has = (shelf: Shelf): boolean =>
        body.assets.every((id) => shelf.assets.some((asset) => asset.id === id)) &&
        body.folders.every((id) => shelf.folders.some((folder) => folder.id === id));
      const from = [own, ...shared.map(({ shelf }) => shelf)].find(has);
      if (!from) throw new ProblemError('not-found');
      await app.libraryEdits.copy(tutor.id, from, body, body.to);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(removeMaterials),
    handler: async ({ tutor, body }, reply) => {
      await app.libraryEdits.remove(tutor.id, body);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(restoreMaterials),
    handler: async ({ tutor, body }, reply) => {
      await app.libraryEdits.restore(tutor.id, body);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(listUses),
    handler: async ({ tutor, body }) => {
      const own = await app.materials.shelf(tutor.id);
      const shared = await app.shares.withTutor(tutor.id);
      const hashes = [own, ...shared.map(({ shelf }) => shelf)].flatMap((shelf) => {
        const some = shelf.allAssets.filter(({ id }) => body.assets.includes(id));
        return [...shelf.below(body.folders).assets, ...some].map(({ file }) => file);
      });
      return (await app.uses.of(tutor.id, hashes)).map((use) => ({
        ...use,
        pages: [...use.pages],
      }));
    },
  });
  app.route({
    ...served(readAssetPicture),
    handler: async ({ tutor, params: { asset } }, reply) => {
      const row = await app.materials.asset(asset);
      const own = row?.tutor === tutor.id;
      const seen = own ? row : await app.shares.usable(tutor.id, asset);
      const picture = await app.pagePictures.small(seen);
      return reply
        .type('image/jpeg')
        .header('cache-control', own ? 'private, max-age=86400' : 'no-store')
        .send(picture);
    },
  });

  app.route({
    ...served(keepAssetStill),
    bodyLimit: MAX_STILL,
    handler: async ({ tutor, params: { asset }, body }, reply) => {
      const row = await app.materials.asset(asset);
      if (row?.tutor !== tutor.id || row.kind !== 'film') throw new ProblemError('not-found');
      await app.arrivals.still(row, await app.files.put(body as Readable, MAX_STILL));
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(useAsset),
    handler: async ({ tutor, params: { asset }, body }) => {
      const board = await app.boards.one(body.board, tutor.id);
      const row = await app.shares.usable(tutor.id, asset);
      if (!canBeLaid(row)) throw new ProblemError('not-to-be-laid');
      const still = row.kind === 'film' ? row.preview : null;
      for (const file of [row.file, still]) if (file) await app.boards.useFile(board.id, file);
      return { ...assetShape(row), still };
    },
  });

  app.route({
    ...served(createBoardOfAsset),
    handler: async ({ tutor, params: { asset }, body }, reply) => {
      const course = await app.courses.one(body.course, tutor.id);
      const row = await app.shares.usable(tutor.id, asset);
      if (canBeLaid(row)) throw new ProblemError('no-board-of-it');
      const brought = await app.importRouter.importFile(
        storedFile(row),
        row.name,
        course.id,
        tutor.id,
      );
      if (brought.kind === 'job') return reply.status(202).send({ job: brought.job });
      const { board, file, annotations } = brought;
      return reply.status(201).send({ ...board, file, annotations });
    },
  });

  app.route({
    ...served(insertAssetPages),
    handler: async ({ tutor, params: { asset }, body }) => {
      const board = await app.boards.one(body.board, tutor.id);
      const row = await app.shares.usable(tutor.id, asset);
      if (row.kind !== 'pdf') throw new ProblemError('no-board-of-it');
      return { pages: await app.imports.into(board.id, storedFile(row), tutor.id, body.after) };
    },
  });
};
