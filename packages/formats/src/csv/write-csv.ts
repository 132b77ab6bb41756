import Papa from 'papaparse';

/** Says that a text is UTF-8 to spreadsheets, which else take it for something older. */
const MARK = '\uFEFF';

/**
 * A table as text (RFC 4180): lines end with CRLF, the last one too, and what has commas, quotes or line breaks
 * in it is quoted. What a spreadsheet would take for a formula has an apostrophe before it: names are typed by
 * students.
 */
export function writeCsv(
  header: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): string {
  const table = Papa.unparse(
    { fields: [...header], data: rows.map((row) => [...row]) },
    { newline: '\r\n', escapeFormulae: true },
  );
  return `${MARK}${table.replace(/\r\n$/, '')}\r\n`;
}
