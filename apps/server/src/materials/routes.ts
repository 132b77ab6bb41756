import { canBeLaid, FileHash, Folder, Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import * as z from 'zod';
import { BoardShape, ImportedAnnotations, Title } from '@cuaderno/contract/courses';
import type { StoredFile } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import type { Arrivals } from './arrivals.js';
import type { PagePictures } from './page-pictures.js';
import type { Materials } from './service.js';
import {
  AssetShape,
  ChoiceShape,
  FileName,
  ShareShape,
  UseShape,
} from '@cuaderno/contract/materials';
import { assetShape } from './asset-shape.js';
import type { Shares } from './shares.js';
import type { AssetRow, Shelf } from './shelf.js';
import type { SlidePreviews } from './slide-previews.js';
import type { LibraryEdits } from './library-edits.js';
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

const tags = ['materials'];

/** Largest still of a film, in bytes. */
const MAX_STILL = 4 * 1024 * 1024;

const ShelfShape = z.object({ folders: z.array(Folder), assets: z.array(AssetShape) });
const Nothing = z.null();

/** A tutor's files in their folders. */
export const materialRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);
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

  app.get(
    '/materials',
    {
      schema: {
        tags,
        summary: 'All folders and files of this tutor, and those that others share with them',
        response: {
          200: ShelfShape.extend({
            shares: z.array(ShareShape),
            shared: z.array(ShelfShape.extend({ owner: z.object({ id: Id, name: z.string() }) })),
            /** How many items lie in the bin. */
            binned: z.number(),
          }),
        },
      },
    },
    async ({ tutor }) => {
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
  );

  app.get(
    '/materials/bin',
    { schema: { tags, summary: 'What lies in the bin', response: { 200: ShelfShape } } },
    async ({ tutor }) => shapeOf((await app.materials.shelf(tutor.id)).bin),
  );

  app.post(
    '/materials/bin/empty',
    {
      schema: {
        tags,
        summary: 'Remove for good what lies in the bin; boards keep what is on them',
        response: { 204: Nothing },
      },
    },
    async ({ tutor }, reply) => {
      await app.pagePictures.forget(await app.libraryEdits.emptyBin(tutor.id));
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/materials/folders',
    {
      schema: {
        tags,
        summary: 'Make a folder',
        body: z.object({ name: Title, parent: Id.nullable() }),
        response: { 201: Folder },
      },
    },
    async ({ tutor, body }, reply) => {
      const { id, parent, name } = await app.materials.makeFolder(tutor.id, body.parent, body.name);
      return reply.status(201).send({ id, parent, name });
    },
  );

  const named = { body: z.object({ name: FileName }), response: { 204: Nothing } };

  app.post(
    '/materials/folders/:folder/name',
    { schema: { tags, summary: 'Name a folder', params: z.object({ folder: Id }), ...named } },
    async ({ tutor, params, body }, reply) => {
      await app.libraryEdits.nameFolder(tutor.id, params.folder, body.name);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/materials/assets/:asset/name',
    { schema: { tags, summary: 'Name a file', params: z.object({ asset: Id }), ...named } },
    async ({ tutor, params, body }, reply) => {
      await app.libraryEdits.nameAsset(tutor.id, params.asset, body.name);
      return reply.status(204).send(null);
    },
  );

  const To = ChoiceShape.extend({ to: Id.nullable() });

  app.post(
    '/materials/move',
    {
      schema: {
        tags,
        summary: 'Put folders and files into another folder',
        body: To,
        response: { 204: Nothing },
      },
    },
    async ({ tutor, body }, reply) => {
      await app.libraryEdits.move(tutor.id, body, body.to);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/materials/copy',
    {
      schema: {
        tags,
        summary: 'Copy folders and files, one’s own or shared ones, into a folder of one’s own',
        body: To,
        response: { 204: Nothing },
      },
    },
    async ({ tutor, body }, reply) => {
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
  );

  app.post(
    '/materials/remove',
    {
      schema: {
        tags,
        summary: 'Put folders and files into the bin; boards keep what is on them',
        body: ChoiceShape,
        response: { 204: Nothing },
      },
    },
    async ({ tutor, body }, reply) => {
      await app.libraryEdits.remove(tutor.id, body);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/materials/restore',
    {
      schema: {
        tags,
        summary: 'Bring folders and files back from the bin',
        body: ChoiceShape,
        response: { 204: Nothing },
      },
    },
    async ({ tutor, body }, reply) => {
      await app.libraryEdits.restore(tutor.id, body);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/materials/uses',
    {
      schema: {
        tags,
        summary: 'On which boards these files are used, and on which of their pages',
        body: ChoiceShape,
        response: { 200: z.array(UseShape) },
      },
    },
    async ({ tutor, body }) => {
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
  );

  const params = z.object({ asset: Id });

  app.get(
    '/materials/assets/:asset/picture',
    { schema: { tags, summary: 'A small picture of a file, as JPEG', params } },
    async ({ tutor, params: { asset } }, reply) => {
      const row = await app.materials.asset(asset);
      const own = row?.tutor === tutor.id;
      const seen = own ? row : await app.shares.usable(tutor.id, asset);
      const picture = await app.pagePictures.small(seen);
      return reply
        .type('image/jpeg')
        .header('cache-control', own ? 'private, max-age=86400' : 'no-store')
        .send(picture);
    },
  );

  app.post(
    '/materials/assets/:asset/still',
    {
      bodyLimit: MAX_STILL,
      schema: {
        tags,
        summary: 'A still of a film, as the browser that sent it sees it; the body is a picture',
        consumes: ['application/octet-stream'],
        params,
        response: { 204: Nothing },
      },
    },
    async ({ tutor, params: { asset }, body }, reply) => {
      const row = await app.materials.asset(asset);
      if (row?.tutor !== tutor.id || row.kind !== 'film') throw new ProblemError('not-found');
      await app.arrivals.still(row, await app.files.put(body as Readable, MAX_STILL));
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/materials/assets/:asset/lay',
    {
      schema: {
        tags,
        summary: 'A picture, sound or film may be laid on this board from now on',
        params,
        body: z.object({ board: Id }),
        response: { 200: AssetShape.extend({ still: FileHash.nullable() }) },
      },
    },
    async ({ tutor, params: { asset }, body }) => {
      const board = await app.boards.one(body.board, tutor.id);
      const row = await app.shares.usable(tutor.id, asset);
      if (!canBeLaid(row)) throw new ProblemError('not-to-be-laid');
      const still = row.kind === 'film' ? row.preview : null;
      for (const file of [row.file, still]) if (file) await app.boards.useFile(board.id, file);
      return { ...assetShape(row), still };
    },
  );

  app.post(
    '/materials/assets/:asset/board',
    {
      schema: {
        tags,
        summary: 'Make a board of a PDF, of slides or of a saved board',
        params,
        body: z.object({ course: Id }),
        response: {
          /** Slides: the import to ask after. */
          202: z.object({ job: z.string() }),
          201: BoardShape.extend({ file: FileHash.nullable(), annotations: ImportedAnnotations }),
        },
      },
    },
    async ({ tutor, params: { asset }, body }, reply) => {
      const course = await app.courses.one(body.course, tutor.id);
      const row = await app.shares.usable(tutor.id, asset);
      if (canBeLaid(row)) throw new ProblemError('no-board-of-it');
      const brought = await app.importRouter.bring(storedFile(row), row.name, course.id, tutor.id);
      if (brought.kind === 'job') return reply.status(202).send({ job: brought.job });
      const { board, file, annotations } = brought;
      return reply.status(201).send({ ...board, file, annotations });
    },
  );

  app.post(
    '/materials/assets/:asset/pages',
    {
      schema: {
        tags,
        summary:
          'Bring the pages of a PDF to a board that is there: after one of its pages, before all, or at the end',
        params,
        body: z.object({ board: Id, after: z.union([Id, z.literal('start')]).nullable() }),
        response: { 200: z.object({ pages: z.array(Id) }) },
      },
    },
    async ({ tutor, params: { asset }, body }) => {
      const board = await app.boards.one(body.board, tutor.id);
      const row = await app.shares.usable(tutor.id, asset);
      if (row.kind !== 'pdf') throw new ProblemError('no-board-of-it');
      return { pages: await app.imports.into(board.id, storedFile(row), tutor.id, body.after) };
    },
  );
};
