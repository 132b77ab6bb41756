export { deedsOf } from './deeds.js';
export type { Deed } from './deeds.js';
export { figuresOf, LessonFigures } from './figures.js';
export type { Beside } from './figures.js';
export { lanesOf, penDown, TOGETHER } from './lanes.js';
export { BREATH, IDLE, Pace } from './pace.js';
export type { Stretch } from './pace.js';
export { Replay } from './replay.js';
export type { Drawing, Moment } from './replay.js';
