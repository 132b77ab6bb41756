import fp from 'fastify-plugin';

/** How often it is looked for lessons that were left, in ms, at most. */
const LOOK_EVERY = 10_000;

/**
 * A lesson whose tutor is gone stays open for a while, for anyone who only lost the line or stepped out;
 * then it closes itself into a record, as if the tutor had closed it.
 */
export const absence = fp(
  async (app, { awayMs }: { awayMs: number }) => {
    const look = async (): Promise<void> => {
      for (const lesson of app.lessons.leftSince(Date.now() - awayMs)) {
        app.log.info({ lesson: lesson.id }, 'its tutor is gone: the lesson is closed');
        await app.closeLesson(lesson);
      }
    };
    let looking: Promise<void> = Promise.resolve();
    const timer = setInterval(
      () => {
        looking = looking
          .then(look)
          .catch((error: unknown) => app.log.error({ err: error }, 'a left lesson was not closed'));
      },
      Math.min(LOOK_EVERY, awayMs / 4),
    );
    app.addHook('onClose', async () => {
      clearInterval(timer);
      await looking;
    });
  },
  { name: 'absence', dependencies: ['lessons', 'live', 'records'] },
);
