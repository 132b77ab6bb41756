export { accounts, endSession } from './plugin.js';
export { accountRoutes } from './routes.js';
export { Guesses } from './guesses.js';
export { networkOf } from './network.js';
export type { Session, Sessions } from './sessions.js';
export type { Tutor } from './service.js';
