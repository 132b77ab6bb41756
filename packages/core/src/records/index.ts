export { coverPage } from './cover-page.js';
export { joinBoards, recordTitle } from './joined-board.js';
export { joinLogs, operationInRecord } from './joined-log.js';
export type { LogOfBoard } from './joined-log.js';
export { pageInRecord, placeOf } from './page-in-record.js';
export type { RecordBoard } from './page-in-record.js';
