import type { Route } from '../route.js';
import * as accounts from './accounts.js';
import * as archive from './archive.js';
import * as boards from './boards.js';
import * as courses from './courses.js';
import * as files from './files.js';
import * as handingOver from './handing-over.js';
import * as handouts from './handouts.js';
import * as health from './health.js';
import * as hours from './hours.js';
import * as imports from './imports.js';
import * as lateLines from './late-lines.js';
import * as lessons from './lessons.js';
import * as mailbox from './mailbox.js';
import * as materials from './materials.js';
import * as recordLinks from './record-links.js';
import * as records from './records.js';
import * as sharedRecords from './shared-records.js';
import * as studentData from './student-data.js';
import * as timetable from './timetable.js';

const MODULES = [
  ...[
    accounts,
    archive,
    boards,
    courses,
    files,
    handingOver,
    handouts,
    health,
    hours,
    imports,
    lateLines,
  ],
  ...[lessons, mailbox, materials, recordLinks, records, sharedRecords, studentData, timetable],
];

/** Every route there is. The interface takes those that it needs from their own modules, and loads no others. */
export const ROUTES: readonly Route[] = MODULES.flatMap((module) =>
  Object.values(module as Record<string, unknown>).filter(
    (value): value is Route => typeof value === 'object' && value !== null && 'path' in value,
  ),
);
