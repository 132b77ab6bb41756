export { writeCompletedLessons } from './completed.js';
export type { CompletedLesson } from './completed.js';
export * from './read.js';
export { writeICalendar } from './write.js';
export type { CalendarEntry } from './write.js';
