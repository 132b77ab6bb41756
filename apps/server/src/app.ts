import rateLimit from '@fastify/rate-limit';
import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import Fastify from 'fastify';
import type { FastifyInstance } from 'fastify';
import {
  jsonSchemaTransform,
  serializerCompiler,
  validatorCompiler,
} from 'fastify-type-provider-zod';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { accountRoutes, accounts } from './accounts/index.js';
import { accountDeletion } from './account-deletion/account-deletion.js';
import { accountDeletionRoutes } from './account-deletion/routes.js';
import { passwordLetters } from './accounts/password-letters.js';
import { arrangeRoutes } from './boards/arrange-routes.js';
import { BoardFiles } from './boards/board-files.js';
import { Bringing } from './boards/bringing.js';
import { Copies } from './boards/copies.js';
import { exportRoutes } from './boards/export-routes.js';
import { HeldFiles } from './boards/held-files.js';
import { Imports } from './boards/import.js';
import { boardRoutes } from './boards/routes.js';
import { unreadableRoutes } from './boards/unreadable-routes.js';
import { Boards } from './boards/service.js';
import { BoardWriters } from './boards/writers.js';
import type { Config } from './config.js';
import { GuestLinks } from './courses/guest-links.js';
import { courseRoutes } from './courses/routes.js';
import { Courses } from './courses/service.js';
import { wayInRoutes } from './courses/way-in-routes.js';
import { database } from './database/index.js';
import { fileRoutes } from './files/routes.js';
import { KnownFiles } from './files/known-files.js';
import { FileStore } from './files/store.js';
import { healthRoutes } from './health/routes.js';
import { uncaught } from './health/uncaught.js';
import { handingOver } from './handing-over/plugin.js';
import { handedRoutes, handOverRoutes } from './handing-over/routes.js';
import { lateLines } from './late-lines/plugin.js';
import { lateRoutes, tutorLateRoutes } from './late-lines/routes.js';
import { lessons } from './lessons/plugin.js';
import { absence } from './lessons/absence.js';
import { joinRoutes } from './lessons/join-routes.js';
import { tutorLessonRoutes } from './lessons/routes.js';
import { live } from './live/plugin.js';
import { MaterialIntake } from './intake/intake.js';
import { intakeRoutes } from './intake/routes.js';
import { lookRoutes } from './materials/look-routes.js';
import { materials } from './materials/plugin.js';
import { materialRoutes } from './materials/routes.js';
import { shareRoutes } from './materials/share-routes.js';
import { uploadRoutes } from './materials/upload-routes.js';
import { Darkroom } from './pictures/darkroom.js';
import { loggedError, loggedRequest } from './problems/log.js';
import { problem, ProblemError, problems } from './problems/index.js';
import { archiveRoutes } from './archive/routes.js';
import { hours } from './hours/hours.js';
import { hourRoutes } from './hours/routes.js';
import { studentData } from './student-data/plugin.js';
import { studentDataRoutes } from './student-data/routes.js';
import { timetable } from './timetable/plugin.js';
import { timetableRoutes } from './timetable/routes.js';
import { mailbox } from './mailbox/mailbox.js';
import { mailboxRoutes } from './mailbox/routes.js';
import { recordLinks } from './record-links/plugin.js';
import { recordLinkRoutes } from './record-links/routes.js';
import { sharedRoutes } from './record-links/shared-routes.js';
import { exportRoutesOfRecords } from './records/export-routes.js';
import { pdfRoutesOfRecords } from './records/pdf-routes.js';
import { noteRoutes } from './records/note-routes.js';
import { records } from './records/plugin.js';
import { recordRoutes } from './records/routes.js';
import { Office } from './slides/office.js';
import { ImportQueue } from './slides/queue.js';
import { Reports } from './slides/reports.js';
import { slideRoutes } from './slides/routes.js';
import { SlideImports } from './slides/slide-imports.js';
import { freshness } from './site/freshness.js';
import { isOwnOrigin } from './site/own-origin.js';
import { site } from './site/plugin.js';
import { slowBodies } from './site/slow-bodies.js';
import { waiting } from './waiting/plugin.js';
import { workers } from './workers/plugin.js';

/** Largest body of a request other than an upload, in bytes. */
const BODY_LIMIT = 64 * 1024;

/**
 * Whom to believe about where a visitor comes from: those proxies that are ours. A visitor may write what they like
 * into the header; only what our own proxies added to its end counts.
 */
function trusted(
  proxies: Config['proxies'],
): string[] | ((address: string, hop: number) => boolean) {
  return typeof proxies === 'number' ? (_address, hop) => hop < proxies : proxies;
}

/** The whole server, ready to listen. Closing it finishes what was begun. */
export async function buildApp(config: Config): Promise<FastifyInstance> {
  const app = Fastify({
    logger: {
      level: config.logLevel,
      serializers: { req: loggedRequest, err: loggedError },
    },
    bodyLimit: BODY_LIMIT,
    trustProxy: trusted(config.proxies),
    // A large database takes its time to be copied before its tables are changed.
    pluginTimeout: 0,
    // Large files take long on thin lines; those that make no progress are ended by `slowBodies`.
    requestTimeout: 0,
    // Names in links may be long; each route has its own limit.
    routerOptions: { maxParamLength: 300 },
    forceCloseConnections: true,
  });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);

  await mkdir(config.dataFolder, { recursive: true });
  await app.register(problems);
  await app.register(uncaught);
  await app.register(freshness);
  await app.register(slowBodies, { patienceMs: config.bodyPatienceMs });
  await app.register(rateLimit, {
    max: config.requestsPerMinute,
    timeWindow: '1 minute',
    errorResponseBuilder: () =>
      Object.assign(new Error(), problem('slow-down'), { statusCode: 429 }),
  });
  app.addHook('onRequest', async (request) => {
    // Cookies are SameSite=Strict; this is the second lock on the same door.
    const changes = request.method !== 'GET' && request.method !== 'HEAD';
    const upgrades = request.headers.upgrade !== undefined;
    if ((changes || upgrades) && !isOwnOrigin(request.headers))
      throw new ProblemError('wrong-origin');
  });
  await app.register(swagger, {
    openapi: {
      info: {
        title: 'Cuaderno',
        version: '0.1.0',
        description:
          'Errors are RFC 9457 problem details. Live traffic is described in docs/protocol.md.',
      },
    },
    transform: jsonSchemaTransform,
  });
  await app.register(database, { folder: config.dataFolder });
  await app.register(accounts);
  await app.register(workers);

  const files = new FileStore(join(config.dataFolder, 'files'));
  await files.open();
  app.decorate('files', files);
  const known = new KnownFiles(app.db, files);
  app.decorate('knownFiles', known);
  app.decorate('boards', new Boards(app.db, known));
  const writers = new BoardWriters(app.db);
  app.decorate('boardWriters', writers);
  app.decorate('courses', new Courses(app.db));
  app.decorate('guestLinks', new GuestLinks(app.db));
  await app.register(timetable);
  await app.register(lessons, { folder: config.dataFolder });
  await app.register(live, { messagesPerSecond: config.messagesPerSecond });
  await app.register(waiting);
  await app.register(lateLines);
  await app.register(records);
  await app.register(absence, { awayMs: config.awayMs });
  app.decorate('imports', new Imports(app.boards, app.bus, files, app.workers, app.log, writers));
  const darkroom = new Darkroom(app.log);
  app.decorate('intake', new MaterialIntake(app.boards, files, known, darkroom, app.workers));
  app.decorate(
    'boardFiles',
    new BoardFiles(
      ...([
        app.boards,
        () => app.db.lend(),
        files,
        known,
        app.intake,
        app.workers,
        writers,
      ] as const),
    ),
  );
  const office = new Office(join(config.dataFolder, 'office-profile'), config.office);
  await office.tidy();
  app.decorate('office', office);
  app.addHook('onClose', () => office.close());
  app.decorate('reports', new Reports(app.db));
  app.decorate('importQueue', new ImportQueue(app.log));
  app.decorate(
    'slides',
    new SlideImports({
      boards: app.boards,
      bus: app.bus,
      store: files,
      material: app.intake,
      imports: app.imports,
      workers: app.workers,
      office,
      reports: app.reports,
      log: app.log,
    }),
  );
  const bringLimits = { maxUploadBytes: config.maxUploadBytes, maxPages: config.maxPages };
  const { imports, slides, boardFiles, importQueue: queue } = app;
  app.decorate(
    'bringing',
    new Bringing({ known, store: files, imports, slides, queue, boardFiles }, bringLimits),
  );
  await app.register(materials, {
    folder: config.dataFolder,
    maxUploadBytes: config.maxUploadBytes,
    office,
  });
  await app.register(handingOver);
  app.addHook('onClose', () => darkroom.close());
  await app.register(hours);
  await app.register(mailbox);
  await app.register(passwordLetters, { address: config.address });
  await app.register(recordLinks, { folder: config.dataFolder, darkroom });
  await app.register(studentData, { folder: config.dataFolder });
  await app.register(accountDeletion, { folder: config.dataFolder });
  const heldFiles = new HeldFiles(
    ...([app.boards, app.bus, files, app.workers, app.imports, app.log, app.lessons] as const),
  );
  app.bus.onHeld = (board, when) =>
    when === 'now' ? heldFiles.changed(board) : heldFiles.changedSoon(board);
  app.decorate('heldFiles', heldFiles);
  app.decorate('copies', new Copies(app.boards, app.bus, app.logs, writers));
  app.addHook('onReady', () => app.imports.resume());
  app.addHook('preClose', async () => {
    await app.importQueue.close();
    await app.arrivals.settled();
    await app.imports.settled();
    await heldFiles.settled();
  });

  await app.register(site, { folder: config.siteFolder });
  await app.register(swaggerUi, { routePrefix: '/api/docs', staticCSP: true });
  await app.register(
    async (api) => {
      await api.register(healthRoutes);
      await api.register(studentDataRoutes);
      await api.register(accountRoutes, { demo: config.demo });
      await api.register(accountDeletionRoutes);
      await api.register(joinRoutes);
      await api.register(lateRoutes);
      await api.register(tutorLateRoutes);
      await api.register(fileRoutes);
      await api.register(courseRoutes);
      await api.register(wayInRoutes);
      await api.register(boardRoutes, { maxUploadBytes: config.maxUploadBytes });
      await api.register(arrangeRoutes);
      await api.register(exportRoutes);
      await api.register(unreadableRoutes);
      await api.register(intakeRoutes, { maxUploadBytes: config.maxUploadBytes });
      await api.register(slideRoutes);
      await api.register(materialRoutes);
      await api.register(shareRoutes);
      await api.register(uploadRoutes, { maxUploadBytes: config.maxUploadBytes });
      await api.register(lookRoutes);
      await api.register(handedRoutes);
      await api.register(handOverRoutes);
      await api.register(tutorLessonRoutes);
      await api.register(recordRoutes);
      await api.register(noteRoutes);
      await api.register(exportRoutesOfRecords);
      await api.register(pdfRoutesOfRecords);
      await api.register(recordLinkRoutes);
      await api.register(sharedRoutes);
      await api.register(mailboxRoutes);
      await api.register(timetableRoutes);
      await api.register(hourRoutes);
      await api.register(archiveRoutes);
    },
    { prefix: '/api' },
  );
  return app;
}
