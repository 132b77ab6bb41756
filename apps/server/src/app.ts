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
import { accountRoutes, accounts, networkOf } from './accounts/index.js';
import { accountDeletion } from './account-deletion/account-deletion.js';
import { accountDeletionRoutes } from './account-deletion/routes.js';
import { passwordLetters } from './accounts/password-letters.js';
import { arrangeRoutes } from './board-actions/arrange-routes.js';
import { exportRoutes } from './board-actions/export-routes.js';
import { boardRoutes } from './board-actions/routes.js';
import { unreadableRoutes } from './board-actions/unreadable-routes.js';
import type { Config } from './config.js';
import { courseRoutes } from './courses/routes.js';
import { wayInRoutes } from './courses/way-in-routes.js';
import { boardActions } from './board-actions/plugin.js';
import { boards } from './boards/plugin.js';
import { courses } from './courses/plugin.js';
import { database } from './database/index.js';
import { fileAccess } from './file-access/plugin.js';
import { files } from './files/plugin.js';
import { imports } from './imports/plugin.js';
import { intake } from './intake/plugin.js';
import { pdf } from './pdf/plugin.js';
import { pdfImports } from './pdf-imports/plugin.js';
import { slides } from './slides/plugin.js';
import { fileRoutes } from './file-access/routes.js';
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
import { intakeRoutes } from './intake/routes.js';
import { previewRoutes } from './materials/preview-routes.js';
import { materials } from './materials/plugin.js';
import { materialRoutes } from './materials/routes.js';
import { shareRoutes } from './materials/share-routes.js';
import { uploadRoutes } from './materials/upload-routes.js';
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
import { slideRoutes } from './slides/routes.js';
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

/** Headers that count what is left of a client's requests. */
const NOT_COUNTED = {
  'x-ratelimit-limit': false,
  'x-ratelimit-remaining': false,
  'x-ratelimit-reset': false,
};

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
    keyGenerator: networkOf,
    // Nobody reads how many are left; who has none left is told when to come again, by `retry-after`.
    addHeaders: { ...NOT_COUNTED, 'retry-after': true },
    addHeadersOnExceeding: NOT_COUNTED,
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
  await app.register(accounts, { passwordCost: config.passwordCost });
  await app.register(workers, { shared: config.workers });

  await app.register(pdf);
  await app.register(files, { folder: config.dataFolder });
  await app.register(courses);
  await app.register(boards);
  await app.register(timetable);
  await app.register(lessons, { folder: config.dataFolder });
  await app.register(live, { messagesPerSecond: config.messagesPerSecond, ice: config.ice });
  await app.register(waiting);
  await app.register(lateLines);
  await app.register(records);
  await app.register(absence, { awayMs: config.awayMs });
  await app.register(pdfImports);
  await app.register(intake);
  await app.register(slides, { folder: config.dataFolder, office: config.office });
  const { maxUploadBytes, maxPages } = config;
  await app.register(imports, { maxUploadBytes, maxPages });
  await app.register(materials, {
    folder: config.dataFolder,
    maxUploadBytes: config.maxUploadBytes,
    office: app.office,
  });
  await app.register(handingOver);
  await app.register(hours);
  await app.register(mailbox);
  await app.register(passwordLetters, { address: config.address });
  await app.register(recordLinks, {
    folder: config.dataFolder,
    imageProcess: app.imageProcess,
  });
  await app.register(studentData, { folder: config.dataFolder });
  await app.register(accountDeletion, { folder: config.dataFolder });
  await app.register(fileAccess);
  await app.register(boardActions);
  // What is under way is finished: first nothing new begins.
  app.addHook('preClose', async () => {
    await app.importQueue.close();
    await app.arrivals.settled();
    await app.imports.settled();
    await app.hiddenFiles.settled();
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
      await api.register(previewRoutes);
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
