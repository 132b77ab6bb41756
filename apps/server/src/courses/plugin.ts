import fp from 'fastify-plugin';
import { GuestLinks } from './guest-links.js';
import { Courses } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    courses: Courses;
    guestLinks: GuestLinks;
  }
}

/** Courses, and the links by which one comes into them. */
export const courses = fp(
  (app, _options, done) => {
    app.decorate('courses', new Courses(app.db));
    app.decorate('guestLinks', new GuestLinks(app.db));
    done();
  },
  { name: 'courses', dependencies: ['database', 'accounts'] },
);
