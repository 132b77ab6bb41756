import fp from 'fastify-plugin';
import { join } from 'node:path';
import { KnownFiles } from './known-files.js';
import { FileStore } from './store.js';

declare module 'fastify' {
  interface FastifyInstance {
    files: FileStore;
    knownFiles: KnownFiles;
  }
}

/** Contents of files, each stored once. */
export const files = fp(
  async (app, { folder }: { readonly folder: string }) => {
    const store = new FileStore(join(folder, 'files'));
    await store.open();
    app.decorate('files', store);
    app.decorate('knownFiles', new KnownFiles(app.db, store));
  },
  { name: 'files', dependencies: ['database'] },
);
