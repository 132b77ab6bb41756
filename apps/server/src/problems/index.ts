export type { ProblemCode } from './catalogue.js';
export { problems } from './plugin.js';
export { problem, ProblemError } from './problem.js';
