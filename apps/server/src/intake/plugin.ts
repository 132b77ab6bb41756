import fp from 'fastify-plugin';
import { ImageProcess } from '../pictures/image-process.js';
import { MaterialIntake } from './intake.js';
import { MediaReader } from './media-reader.js';

declare module 'fastify' {
  interface FastifyInstance {
    intake: MaterialIntake;
    /** Makes pictures ready for tutors who wait for them. */
    imageProcess: ImageProcess;
  }
}

/** Pictures, sounds and films that come in. */
export const intake = fp(
  (app, _options, done) => {
    const imageProcess = new ImageProcess(app.log);
    const media = new MediaReader(app.workers);
    app.decorate('imageProcess', imageProcess);
    app.decorate(
      'intake',
      new MaterialIntake(app.boards, app.files, app.knownFiles, imageProcess, media),
    );
    app.addHook('onClose', () => imageProcess.close());
    done();
  },
  { name: 'intake', dependencies: ['files', 'boards', 'workers'] },
);
