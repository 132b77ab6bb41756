import type { FastifyReply, FastifyRequest } from 'fastify';
import fp from 'fastify-plugin';
import { ProblemError } from '../problems/index.js';
import type { LiveLesson, Participant } from './live-lesson.js';
import { PASS_MS, PassOffice } from './pass.js';
import { Lessons } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    lessons: Lessons;
    passes: PassOffice;
    /** The person whose pass came with the request, in or not. Throws `pass-expired` or `lesson-over`. */
    arrivalOf(request: FastifyRequest): Student;
    /**
     * The student whose pass came with the request. Throws `pass-expired`, `lesson-over`, or
     * `at-the-door` for whom isn't let in.
     */
    studentOf(request: FastifyRequest): Student;
  }
  interface FastifyRequest {
    /** Set on routes for a `student`, a `helper` or an `arrival`, and where one who helps asks as a `teacher`. */
    student: Student;
  }
}

export interface Student {
  readonly lesson: LiveLesson;
  readonly person: Participant;
}

const COOKIE = 'cuaderno_pass';

/** How often open lessons note that they are running, in ms. */
const PULSE = 5000;

export function setPass(request: FastifyRequest, reply: FastifyReply, student: Student): void {
  const { lesson, person } = student;
  reply.setCookie(COOKIE, request.server.passes.issue(lesson.id, person.id), {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: request.protocol === 'https',
    maxAge: PASS_MS / 1000,
  });
}

export const lessons = fp(
  async (app, { folder }: { folder: string }) => {
    const service = new Lessons(app.db);
    await service.restore();
    service.turns.onFailed = (error) => app.log.error({ err: error }, 'a page turn was not kept');
    const passes = await PassOffice.open(folder);
    app.decorate('lessons', service);
    app.decorate('passes', passes);
    app.decorate('arrivalOf', (request: FastifyRequest) => {
      const pass = passes.read(request.cookies[COOKIE]);
      if (!pass || pass === 'expired') throw new ProblemError('pass-expired');
      const lesson = service.get(pass.lesson);
      const person = lesson?.person(pass.arrival);
      if (!lesson || !person) throw new ProblemError('lesson-over');
      return { lesson, person };
    });
    app.decorate('studentOf', (request: FastifyRequest) => {
      const student = app.arrivalOf(request);
      if (student.person.door !== 'in') throw new ProblemError('at-the-door');
      return student;
    });
    app.decorateRequest('student');
    /**
     * Whom a helper acts for, on what is of the course of their lesson; `null` for anyone else. A second tutor who helps is
     * signed in for courses of their own at the same time.
     */
    const helped = async (request: FastifyRequest): Promise<Student | null> => {
      const student = studentIn(request);
      if (student?.person.role !== 'helper') return null;
      const { course, tutor } = student.lesson;
      const named = request.params as { board?: string; course?: string };
      const of =
        named.board === undefined
          ? named.course
          : await app.boards.one(named.board, tutor).then(
              (board) => board.course,
              () => undefined,
            );
      return of === course ? student : null;
    };
    const studentIn = (request: FastifyRequest): Student | null => {
      try {
        return app.studentOf(request);
      } catch (error) {
        if (error instanceof ProblemError) return null;
        throw error;
      }
    };
    const known = {
      helper: async (request: FastifyRequest) => {
        request.student = app.studentOf(request);
        if (request.student.person.role !== 'helper') throw new ProblemError('tutor-only');
      },
      teacher: async (request: FastifyRequest, reply: FastifyReply) => {
        const helper = await helped(request);
        const tutor = helper && (await app.accounts.byId(helper.lesson.tutor));
        if (!helper || !tutor) return app.tutorOnly(request, reply);
        request.student = helper;
        request.tutor = tutor;
      },
      student: async (request: FastifyRequest) => void (request.student = app.studentOf(request)),
      arrival: async (request: FastifyRequest) => void (request.student = app.arrivalOf(request)),
    };
    app.addHook('onRoute', (route) => {
      const who = route.config?.who;
      if (who && who in known)
        route.onRequest = [known[who as keyof typeof known], ...[route.onRequest ?? []].flat()];
    });
    const timer = setInterval(() => {
      service.pulse().catch((error: unknown) => app.log.error({ err: error }, 'a pulse failed'));
    }, PULSE);
    app.addHook('onClose', async () => {
      clearInterval(timer);
      service.turns.close();
      await service.pulse();
    });
  },
  { name: 'lessons', dependencies: ['database', 'accounts'] },
);
