import { pagesInOrder } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { eq } from 'drizzle-orm';
import type { FastifyInstance } from 'fastify';
import { DateTime } from 'luxon';
import { Readable } from 'node:stream';
import type { Tutor } from '../accounts/index.js';
import { USUAL } from '@cuaderno/core/timetable';
import { weeklyWish } from '../courses/next-lesson.js';
import type { Course } from '../courses/service.js';
import { lessons, people, spans } from '../lessons/tables.js';
import { records } from '../records/tables.js';
import { diariesOf } from './diaries.js';
import { skySlides, tideSlides } from './deck.js';
import { eveningPages } from './evening-page.js';
import { tellLastWeek } from './last-week.js';
import { planAhead } from './plans.js';
import { latest, pastWeeks } from './past-weeks.js';
import { celloPage, tideFormulas } from './other-courses.js';
import { materials } from './materials.js';
import { starChart } from './star-chart.js';
import { starHour } from './star-hour.js';
import { tideTable } from './tide-table.js';

/** How the demo tutor signs in where there is no one-click button. */
export const DEMO_TUTOR = {
  name: 'Maren Solheim',
  email: 'maren@solheim.example',
  password: 'low-water-at-ten',
} as const;

const ZONE = 'Europe/Oslo';
/** For how long the courses of the demo have met, in ms. */
const DIARIES = 9 * 7 * 86_400_000;

/** Fills an empty Cuaderno with our scenario. Does nothing where a tutor's account is there. */
export async function fillDemo(app: FastifyInstance): Promise<void> {
  if (await app.accounts.isSetUp()) return;
  const { name, email, password } = DEMO_TUTOR;
  const maren = await app.accounts.add(name, email, password);
  const weekly = async (name: string, weekday: number, startsAt: string): Promise<Course> => {
    const course = await app.courses.make(maren.id, name);
    const slot = { weekday, startsAt, minutes: USUAL.minutes, zone: ZONE };
    // It has been so for the weeks of the diaries.
    await app.timetable.make(course.id, weeklyWish(slot, Date.now() - DIARIES));
    return course;
  };
  const sky = await weekly('Sky-watching, Tuesday 16:30', 2, '16:30');
  const tides = await weekly('Reading the tides, Thursday', 4, '17:30');
  const cello = await weekly('Cello with Mika, Friday', 5, '15:15');
  await planAhead(app, { tides, cello });

  const diaries = diariesOf({
    sky: [sky, await board(app, sky, maren, 'Sky diary', null)],
    tides: [tides, await board(app, tides, maren, 'Tide diary', null)],
    cello: [cello, await board(app, cello, maren, 'Cello diary', null)],
  });
  for (const diary of diaries) await pastWeeks(app, maren, ZONE, diary);
  const practice = await board(app, cello, maren, 'Practice sheet', null);
  await celloPage(app, practice, maren.id);
  const [chart, table] = [await starChart(), await tideTable()];
  const december = await board(app, tides, maren, 'Tides at Solvik, December', table);
  await tideFormulas(app, december, maren.id);
  await slides(app, tides, maren, 'Why the sea rises', tideSlides());
  await slides(app, sky, maren, 'How the sky moves', skySlides());
  const past = await board(app, sky, maren, 'Star chart, first evening', chart);
  await pastLesson(app, sky, maren, past);
  const next = await board(app, sky, maren, 'Star chart for November evenings', chart);
  await eveningPages(app, next, maren.id);
  await materials(app, maren, { sky, tides, cello }, { chart, table });
}

async function board(
  app: FastifyInstance,
  course: Course,
  tutor: Tutor,
  title: string,
  pdf: Uint8Array | null,
): Promise<Id> {
  if (!pdf) return (await app.imports.empty(course.id, title, tutor.id)).id;
  const file = await app.files.put(Readable.from([Buffer.from(pdf)]), pdf.length);
  const made = await app.imports.begin(file, {
    course: course.id,
    tutor: tutor.id,
    title,
    fileName: `${title}.pdf`,
    maxPages: 100,
  });
  await app.imports.settled();
  return made.id;
}

/** A board of slides, where this machine can turn them into pages. */
async function slides(
  app: FastifyInstance,
  course: Course,
  tutor: Tutor,
  title: string,
  odp: Uint8Array,
): Promise<void> {
  const deck = await app.files.put(Readable.from([Buffer.from(odp)]), 1_000_000);
  const upload = {
    course: course.id,
    tutor: tutor.id,
    title,
    fileName: `${title}.pdf`,
    maxPages: 100,
    maxUploadBytes: 1_000_000,
  };
  const nobody = { board: () => undefined };
  await app.slides
    .run(deck, 'odp', upload, nobody, new AbortController().signal)
    .catch((error: unknown) => app.log.warn({ err: error }, 'the demo is without its slides'));
  await app.files.remove(deck.hash);
}

/** Last Tuesday's lesson, with what Maren and her three wrote. */
async function pastLesson(
  app: FastifyInstance,
  course: Course,
  tutor: Tutor,
  boardId: Id,
): Promise<void> {
  const day = latest(DateTime.now().setZone(ZONE), 2);
  const openedAt = day.set({ hour: 16, minute: 26, second: 0 }).toMillis();
  const minute = (n: number): number => openedAt + Math.round(n * 60_000);
  const lesson = await app.lessons.start(course.id, boardId, tutor);
  const [ida, jonas, noor] = await Promise.all(
    ['Ida', 'Jonas', 'Noor'].map((name) =>
      app.lessons.door.knock(lesson, 'all', {
        name,
        device: `${name} of the demo`,
        guest: null,
        role: 'student',
      }),
    ),
  );
  await app.live.lessonOpened(lesson);
  app.lessons.permissions.trust(lesson, 'all', 'write');
  const host = (await app.bus.host(boardId))!;
  const pages = await host.between((state) => pagesInOrder(state).map(({ id }) => id));
  const [sky, bear, cassiopeia, orion, table] = pages as [Id, Id, Id, Id, Id];
  const hour = starHour({
    ...{ tutor: tutor.id, ida: ida!.id, jonas: jonas!.id, noor: noor!.id },
    pages: [sky, bear, cassiopeia, orion, table],
    ...{ day: day.day, month: day.month },
  });
  for (const { by, op } of hour) await host.applyAs([op], lesson.actor(by));
  await app.closeLesson(lesson);

  await app.indexing.settled();

  // It was written this moment; the demo says it was last week.
  const closedAt = minute(54);
  await app.db
    .update(lessons)
    .set({ openedAt, closedAt, aliveAt: closedAt })
    .where(eq(lessons.id, lesson.id));
  await app.db.update(records).set({ sealedAt: closedAt }).where(eq(records.lesson, lesson.id));
  await app.db.delete(spans).where(eq(spans.lesson, lesson.id));
  const there: [Id, number, number][] = [
    [tutor.id, 0, 54],
    [ida!.id, 3, 54],
    [jonas!.id, 4, 29],
    [jonas!.id, 33, 54],
    [noor!.id, 7, 53],
  ];
  await app.db.insert(spans).values(
    there.map(([person, from, to]) => ({
      lesson: lesson.id,
      person,
      fromAt: minute(from),
      toAt: minute(to),
    })),
  );
  for (const [person, from] of [...there].reverse())
    await app.db
      .update(people)
      .set({ arrivedAt: minute(from) })
      .where(eq(people.id, person));
  await tellLastWeek(app, {
    lesson: lesson.id,
    board: boardId,
    minute,
    tutor: tutor.id,
    ida: ida!.id,
    jonas: jonas!.id,
    noor: noor!.id,
    sky,
    bear,
    cassiopeia,
    orion,
    table,
    finished: new Map(hour.map(({ op, minute: at }) => [op.id, minute(at)])),
  });
  app.indexing.queue(lesson.id);
  await app.indexing.settled();
}
