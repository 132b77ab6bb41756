export { writeHeldLessons } from './held.js';
export type { HeldLesson } from './held.js';
export * from './read.js';
export { writeICalendar } from './write.js';
export type { CalendarEntry } from './write.js';
