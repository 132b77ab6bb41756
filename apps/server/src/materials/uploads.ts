import type { Id } from '@cuaderno/core';
import { FileStore as UploadStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { readdir, rm, stat, statfs } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import type { Tutor } from '../accounts/index.js';
import type { FileStore } from '../files/store.js';
import { tooLarge } from '../files/store.js';
import { isDiskFull, problem, ProblemError } from '../problems/index.js';
import type { Arrivals } from './arrivals.js';
import { FileName } from '@cuaderno/contract/materials';
import { assetShape } from './asset-shape.js';

/** How long an upload that broke off may be taken up again, in ms. */
const KEPT = 7 * 24 * 3600_000;

/** A disk with less room than this is full, in bytes. */
const ROOM = 64 * 1024;

/** Thrown inside the upload protocol: its body is sent as it is. */
interface Refusal {
  readonly status_code: number;
  readonly body: string;
}

type Incoming = Parameters<NonNullable<Server['options']['onIncomingRequest']>>[0];

/**
 * Takes files in parts, so that an upload that broke off goes on where it was: the tus protocol
 * 1.0 (tus.io/protocols/resumable-upload), as its own server speaks it. What came whole becomes
 * an asset; the last answer tells it.
 */
export class Uploads {
  private readonly folder: string;
  private readonly store: UploadStore;
  private readonly tus: Server;
  /** Whose request it is, as our own cookie says. */
  private readonly tutors = new WeakMap<IncomingMessage, Tutor>();

  /**
   * @param path address under which it is reached
   * @param folder where parts lie until all are there
   */
  constructor(
    private readonly arrivals: Arrivals,
    private readonly files: FileStore,
    { path, folder, limit }: { path: string; folder: string; limit: number },
  ) {
    this.folder = folder;
    this.store = new UploadStore({ directory: folder });
    this.tus = new Server({
      path,
      datastore: this.store,
      maxSize: limit,
      relativeLocation: true,
      // Nobody from elsewhere.
      allowedOrigins: () => false,
      onUploadCreate: (request, { metadata }) =>
        Promise.resolve({ metadata: { ...metadata, tutor: this.tutorOf(request).id } }),
      onIncomingRequest: async (request, id) => {
        if (request.method === 'POST') return;
        const { metadata } = await this.store.getUpload(id);
        if (metadata?.['tutor'] !== this.tutorOf(request).id) throw refusal('not-found');
      },
      onUploadFinish: async (request, upload) => {
        const { asset, remarks } = await this.finish(
          upload.id,
          this.tutorOf(request).id,
          upload.metadata,
        );
        return {
          // An answer without content could not tell.
          ...(request.method === 'PATCH' ? { status_code: 200 } : {}),
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ ...assetShape(asset), remarks }),
        };
      },
      onResponseError: async (_request, error) => {
        if (error instanceof ProblemError) return answer(error);
        // A part that could not be written says no more than that.
        if (isDiskFull(error) || (await this.isFull())) return refusal('disk-full');
        const status = 'status_code' in error ? error.status_code : 500;
        if (status === 413)
          return answer(new ProblemError('file-too-large', { detail: tooLarge(limit) }));
        if (status === 404 || status === 410)
          return { ...refusal('not-found'), status_code: status };
        // What the other end makes of these is in the protocol; people never see them.
        return 'body' in error && error.body.startsWith('{')
          ? error
          : { ...refusal('upload-broken-off'), status_code: status };
      },
    });
  }

  /** Clears away what broke off long ago. */
  async clear(): Promise<void> {
    const before = Date.now() - KEPT;
    for (const name of await readdir(this.folder).catch(() => [])) {
      const path = join(this.folder, name);
      const { mtimeMs } = await stat(path);
      if (mtimeMs < before) await rm(path, { force: true });
    }
  }

  async handle(tutor: Tutor, request: IncomingMessage, response: ServerResponse): Promise<void> {
    this.tutors.set(request, tutor);
    await this.tus.handle(request, response);
  }

  private async finish(
    id: string,
    tutor: Id,
    metadata: Record<string, string | null> = {},
  ): ReturnType<Arrivals['addUpload']> {
    try {
      const stored = await this.files.adopt(join(this.folder, id));
      const name = FileName.catch('File').parse(metadata['name'] ?? '');
      return await this.arrivals.addUpload(tutor, metadata['folder'] || null, name, stored);
    } finally {
      // Its bytes were taken over; what is left is a note that it was there.
      await this.store.remove(id).catch(() => this.store.configstore.delete(id));
    }
  }

  private async isFull(): Promise<boolean> {
    const { bavail, bsize } = await statfs(this.folder);
    return bavail * bsize < ROOM;
  }

  private tutorOf(request: Incoming): Tutor {
    const incoming = request.runtime?.node?.req as IncomingMessage | undefined;
    const tutor = incoming && this.tutors.get(incoming);
    if (!tutor) throw refusal('not-signed-in');
    return tutor;
  }
}

function refusal(code: Parameters<typeof problem>[0]): Refusal {
  const told = problem(code);
  return { status_code: told.status, body: JSON.stringify(told) };
}

function answer(error: ProblemError): Refusal {
  return { status_code: error.problem.status, body: JSON.stringify(error.problem) };
}
