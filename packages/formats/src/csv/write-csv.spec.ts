import fc from 'fast-check';
import Papa from 'papaparse';
import { writeCsv } from './index.js';

/** The examples of RFC 4180, section 2, as rows. */
const EXAMPLES: readonly [readonly string[], string][] = [
  [['aaa', 'bbb', 'ccc'], 'aaa,bbb,ccc'],
  [['aaa', 'b\r\nbb', 'ccc'], 'aaa,"b\r\nbb",ccc'],
  [['aaa', 'b"bb', 'ccc'], 'aaa,"b""bb",ccc'],
];

describe('tables as text', () => {
  it('are quoted as RFC 4180 has it, and each line ends with CRLF', () => {
    for (const [row, line] of EXAMPLES)
      expect(writeCsv(['zzz', 'yyy', 'xxx'], [row])).toBe(`\uFEFFzzz,yyy,xxx\r\n${line}\r\n`);
    expect(writeCsv(['name'], [])).toBe('\uFEFFname\r\n');
  });

  it('are no formulas, whatever somebody is called', () => {
    for (const name of ['=1+1', '+49', '-Ida', '@Noor'])
      expect(writeCsv(['name'], [[name]])).toContain(`'${name}`);
    expect(writeCsv(['minutes'], [[48]])).toContain('\r\n48\r\n');
  });

  it('are read again as they were', () => {
    const cell = fc.string({ unit: 'grapheme' }).filter((text) => !/^[=+\-@\t\r]/.test(text));
    fc.assert(
      fc.property(
        fc
          .array(fc.tuple(cell, cell, cell), { minLength: 1 })
          .filter((rows) => rows.every((r) => r.join('') !== '')),
        (rows) => {
          const text = writeCsv(['a', 'b', 'c'], rows).slice(1);
          const { data } = Papa.parse<string[]>(text.slice(0, -2), {
            delimiter: ',',
            newline: '\r\n',
          });
          expect(data.slice(1)).toEqual(rows);
        },
      ),
    );
  });
});
