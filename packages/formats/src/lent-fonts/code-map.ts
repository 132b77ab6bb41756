import type { ShownInFont } from './shown-codes.js';

/** Most entries that a block of a map may have (Adobe's technical note 5014). */
const BLOCK = 100;

function blocks(kind: string, entries: readonly string[]): string {
  let lines = '';
  for (let at = 0; at < entries.length; at += BLOCK) {
    const some = entries.slice(at, at + BLOCK);
    lines += `${some.length} begin${kind}\n${some.join('\n')}\nend${kind}\n`;
  }
  return lines;
}

function map(name: string, head: string, { codeSpace }: ShownInFont, body: string): string {
  const ranges = codeSpace.map(([first, last]) => `<${first}> <${last}>`);
  return (
    '/CIDInit /ProcSet findresource begin\n12 dict begin\nbegincmap\n' +
    `/CMapName /${name} def\n${head}${blocks('codespacerange', ranges)}${body}` +
    'endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend\n'
  );
}

/** Which glyph each code stands for: they are counted from 1, as they come (ISO 32000-1, 9.7.5.4). */
export function encodingMap(name: string, shown: ShownInFont): string {
  const head =
    '/CIDSystemInfo 3 dict dup begin /Registry (Adobe) def /Ordering (Identity) def /Supplement 0 def end def\n' +
    `/CMapType 1 def\n/WMode ${shown.vertical ? 1 : 0} def\n`;
  const entries = shown.codes.map(({ hex }, i) => `<${hex}> ${i + 1}`);
  return map(name, head, shown, blocks('cidchar', entries));
}

/** Which words each code stands for, for those who look for them (ISO 32000-1, 9.10.3). */
export function wordsMap(name: string, shown: ShownInFont): string {
  const head =
    '/CIDSystemInfo 3 dict dup begin /Registry (Adobe) def /Ordering (UCS) def /Supplement 0 def end def\n' +
    '/CMapType 2 def\n';
  const entries = shown.codes.flatMap(({ hex, words }) => {
    const units = Array.from(words.split(''), (unit) =>
      unit.charCodeAt(0).toString(16).padStart(4, '0'),
    );
    return units.length > 0 ? [`<${hex}> <${units.join('')}>`] : [];
  });
  return map(name, head, shown, blocks('bfchar', entries));
}
