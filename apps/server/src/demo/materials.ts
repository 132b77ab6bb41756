import type { Id } from '@cuaderno/core';
import type { FastifyInstance } from 'fastify';
import { Readable } from 'node:stream';
import type { Tutor } from '../accounts/index.js';
import type { Course } from '../courses/service.js';
import type { StoredFile } from '../files/store.js';
import type { AssetRow } from '../materials/shelf.js';
import { tideSlides } from './deck.js';
import { turningSky } from './film.js';
import { openStrings } from './sound.js';

/** Maren's files in their folders; the sky-watching class may look at the star charts. */
export async function materials(
  app: FastifyInstance,
  maren: Tutor,
  courses: { readonly sky: Course; readonly tides: Course; readonly cello: Course },
  files: { readonly chart: Uint8Array; readonly table: Uint8Array },
): Promise<void> {
  const folder = async (name: string, parent: Id | null = null): Promise<Id> =>
    (await app.materials.makeFolder(maren.id, parent, name)).id;
  const keep = (bytes: Uint8Array): Promise<StoredFile> =>
    app.files.put(Readable.from([Buffer.from(bytes)]), Infinity);
  const bring = async (into: Id, name: string, bytes: Uint8Array): Promise<AssetRow> =>
    (await app.arrivals.addUpload(maren.id, into, name, await keep(bytes))).asset;
  const sky = await app.materials.folderOf(courses.sky);
  const charts = await folder('Star charts', sky);
  await bring(charts, 'Star chart for November evenings.pdf', files.chart);
  const film = await turningSky();
  const turning = await bring(sky, 'The sky turns.webm', film.film);
  await app.arrivals.still(turning, await keep(film.poster));
  const tides = await app.materials.folderOf(courses.tides);
  await bring(await folder('Tables', tides), 'Tides at Solvik, December.pdf', files.table);
  await bring(tides, 'Why the sea rises.odp', tideSlides());
  const cello = await app.materials.folderOf(courses.cello);
  await bring(await folder('To listen to', cello), 'The open strings.wav', openStrings().wav);
  await app.shares.share(maren.id, charts, { kind: 'course', id: courses.sky.id });
}
