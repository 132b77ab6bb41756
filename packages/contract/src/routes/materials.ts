import { FileHash, Id } from '@cuaderno/core/id';
import { Folder } from '@cuaderno/core/materials';
import * as z from 'zod';
import { BoardShape, ImportedAnnotations, Title } from '../courses.js';
import { AssetShape, ChoiceShape, FileName, ShareShape, UseShape } from '../materials.js';
import { route } from '../route.js';

export const ShelfShape = z.object({ folders: z.array(Folder), assets: z.array(AssetShape) });

const To = ChoiceShape.extend({ to: Id.nullable() });

export const listMaterials = route({
  method: 'GET',
  path: '/materials',
  who: 'tutor',
  tag: 'materials',
  summary: 'All folders and files of this tutor, and those that others share with them',
  answers: {
    200: ShelfShape.extend({
      shares: z.array(ShareShape),
      shared: z.array(ShelfShape.extend({ owner: z.object({ id: Id, name: z.string() }) })),
      /** How many items lie in the bin. */
      binned: z.number(),
    }),
  },
});

export const listBin = route({
  method: 'GET',
  path: '/materials/bin',
  who: 'tutor',
  tag: 'materials',
  summary: 'What lies in the bin',
  answers: { 200: ShelfShape },
});

export const emptyBin = route({
  method: 'POST',
  path: '/materials/bin/empty',
  who: 'tutor',
  tag: 'materials',
  summary: 'Remove for good what lies in the bin; boards keep what is on them',
  answers: { 204: z.null() },
});

export const createFolder = route({
  method: 'POST',
  path: '/materials/folders',
  who: 'tutor',
  tag: 'materials',
  summary: 'Make a folder',
  body: z.object({ name: Title, parent: Id.nullable() }),
  answers: { 201: Folder },
});

export const renameFolder = route({
  method: 'POST',
  path: '/materials/folders/:folder/name',
  who: 'tutor',
  tag: 'materials',
  summary: 'Name a folder',
  params: z.object({ folder: Id }),
  body: z.object({ name: FileName }),
  answers: { 204: z.null() },
});

export const renameAsset = route({
  method: 'POST',
  path: '/materials/assets/:asset/name',
  who: 'tutor',
  tag: 'materials',
  summary: 'Name a file',
  params: z.object({ asset: Id }),
  body: z.object({ name: FileName }),
  answers: { 204: z.null() },
});

export const moveMaterials = route({
  method: 'POST',
  path: '/materials/move',
  who: 'tutor',
  tag: 'materials',
  summary: 'Put folders and files into another folder',
  body: To,
  answers: { 204: z.null() },
});

export const copyMaterials = route({
  method: 'POST',
  path: '/materials/copy',
  who: 'tutor',
  tag: 'materials',
  summary: 'Copy folders and files, one’s own or shared ones, into a folder of one’s own',
  body: To,
  answers: { 204: z.null() },
});

export const removeMaterials = route({
  method: 'POST',
  path: '/materials/remove',
  who: 'tutor',
  tag: 'materials',
  summary: 'Put folders and files into the bin; boards keep what is on them',
  body: ChoiceShape,
  answers: { 204: z.null() },
});

export const restoreMaterials = route({
  method: 'POST',
  path: '/materials/restore',
  who: 'tutor',
  tag: 'materials',
  summary: 'Restore folders and files from the bin',
  body: ChoiceShape,
  answers: { 204: z.null() },
});

export const listUses = route({
  method: 'POST',
  path: '/materials/uses',
  who: 'tutor',
  tag: 'materials',
  summary: 'On which boards these files are used, and on which of their pages',
  body: ChoiceShape,
  answers: { 200: z.array(UseShape) },
});

export const readAssetPicture = route({
  method: 'GET',
  path: '/materials/assets/:asset/picture',
  who: 'tutor',
  tag: 'materials',
  summary: 'A small picture of a file, as JPEG',
  params: z.object({ asset: Id }),
  answers: 'bytes',
});

export const keepAssetStill = route({
  method: 'POST',
  path: '/materials/assets/:asset/still',
  who: 'tutor',
  tag: 'materials',
  summary: 'A still of a film, as the browser that sent it sees it; the body is a picture',
  consumes: ['application/octet-stream'],
  params: z.object({ asset: Id }),
  answers: { 204: z.null() },
});

export const useAsset = route({
  method: 'POST',
  path: '/materials/assets/:asset/lay',
  who: 'tutor',
  tag: 'materials',
  summary: 'A picture, sound or film may be laid on this board from now on',
  params: z.object({ asset: Id }),
  body: z.object({ board: Id }),
  answers: { 200: AssetShape.extend({ still: FileHash.nullable() }) },
});

export const createBoardOfAsset = route({
  method: 'POST',
  path: '/materials/assets/:asset/board',
  who: 'tutor',
  tag: 'materials',
  summary: 'Make a board of a PDF, of slides or of a saved board',
  params: z.object({ asset: Id }),
  body: z.object({ course: Id }),
  answers: {
    /** Slides: the import to ask after. */
    202: z.object({ job: z.string() }),
    201: BoardShape.extend({ file: FileHash.nullable(), annotations: ImportedAnnotations }),
  },
});

export const insertAssetPages = route({
  method: 'POST',
  path: '/materials/assets/:asset/pages',
  who: 'tutor',
  tag: 'materials',
  summary:
    'Insert the pages of a PDF into a board that is there: after one of its pages, before all, or at the end',
  params: z.object({ asset: Id }),
  body: z.object({ board: Id, after: z.union([Id, z.literal('start')]).nullable() }),
  answers: { 200: z.object({ pages: z.array(Id) }) },
});

export const listShareReceivers = route({
  method: 'GET',
  path: '/materials/tutors',
  who: 'tutor',
  tag: 'materials',
  summary: 'Other tutors, with whom folders can be shared',
  answers: { 200: z.array(z.object({ id: Id, name: z.string() })) },
});

export const shareFolder = route({
  method: 'POST',
  path: '/materials/folders/:folder/share',
  who: 'tutor',
  tag: 'materials',
  summary:
    'Share a folder with a tutor, who may use and copy what is in it, or with the students of a course, who may look',
  params: z.object({ folder: Id }),
  body: z.object({ kind: z.enum(['tutor', 'course']), id: Id }),
  answers: { 201: ShareShape },
});

export const takeBackShare = route({
  method: 'POST',
  path: '/materials/shares/:share/take-back',
  who: 'tutor',
  tag: 'materials',
  summary: 'Take a share back; it holds at once',
  params: z.object({ share: Id }),
  answers: { 204: z.null() },
});
