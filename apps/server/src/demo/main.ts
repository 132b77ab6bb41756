import { buildApp } from '../app.js';
import { readConfig } from '../config.js';
import { fillDemo } from './fill.js';

/** Fills the data folder with the demo, once; prints the way in for a student, and leaves. */
const app = await buildApp({ ...readConfig(process.env, null), logLevel: 'error' });
await app.ready();
await fillDemo(app);
const tutor = await app.accounts.first();
const [sky] = tutor ? await app.courses.of(tutor.id) : [];
if (sky) process.stdout.write(`/join/${sky.linkToken}`);
await app.close();
process.exit(0);
