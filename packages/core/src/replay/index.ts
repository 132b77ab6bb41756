export { lanesOf, penDown, TOGETHER } from './lanes.js';
export { BREATH, IDLE, Pace } from './pace.js';
export type { Stretch } from './pace.js';
export { Replay } from './replay.js';
export type { Deed, Drawing, Moment } from './replay.js';
