export type { ProblemCode } from './catalogue.js';
export { problems } from './plugin.js';
export { problem, ProblemError } from './problem.js';
export { isDiskFull } from './plugin.js';
