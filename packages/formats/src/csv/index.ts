export { writeCsv } from './write-csv.js';
