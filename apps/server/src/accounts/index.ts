export { accounts } from './plugin.js';
export { accountRoutes } from './routes.js';
export { Throttle } from './throttle.js';
export type { Tutor } from './service.js';
