/** A line of a page, in a font that is named and isn't in the file. */
export interface UnembeddedLine {
  readonly font: string;
  /** One of the character maps that every reader knows (ISO 32000-1, table 118). */
  readonly encoding: string;
  /** Adobe's collection of signs. */
  readonly ordering: string;
  /** Codes of its letters in hexadecimal digits. */
  readonly hex: string;
}

/**
 * A page in Chinese, Japanese and Korean, a line each, in fonts that are named and aren't in the file: readers were
 * to have them (ISO 32000-1, 9.7.5.2).
 */
export function unembeddedPdf(lines: readonly [string, string, string]): Buffer {
  const kinds = [
    ['STSong-Light', 'UniGB-UCS2-H', 'GB1'],
    ['HeiseiMin-W3', 'UniJIS-UCS2-H', 'Japan1'],
    ['HYSMyeongJo-Medium', 'UniKS-UCS2-H', 'Korea1'],
  ] as const;
  return unembeddedLines(
    kinds.map(([font, encoding, ordering], i) => {
      const hex = Buffer.from(lines[i]!, 'utf16le').swap16().toString('hex');
      return { font, encoding, ordering, hex };
    }),
  );
}

/**
 * A page of 300 by 200 pt with lines of letters 40 pt high, 60 pt apart; what runs downwards begins at the same height
 * as the first. Written by hand, as libraries embed what they write with.
 */
export function unembeddedLines(lines: readonly UnembeddedLine[]): Buffer {
  const shown = lines.map(({ encoding, hex }, i) => {
    const place = encoding.endsWith('V') ? '250 190' : `20 ${150 - 60 * i}`;
    return `/F${i} 40 Tf 1 0 0 1 ${place} Tm <${hex}> Tj`;
  });
  const content = `BT ${shown.join(' ')} ET`;
  const names = lines.map((_, i) => `/F${i} ${5 + 2 * i} 0 R`).join(' ');
  const objects = [
    '<</Type/Catalog/Pages 2 0 R>>',
    '<</Type/Pages/Kids[3 0 R]/Count 1>>',
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 4 0 R/Resources<</Font<<${names}>>>>>>`,
    `<</Length ${content.length}>>stream\n${content}\nendstream`,
    ...lines.flatMap(({ font: name, encoding, ordering }, i) => [
      `<</Type/Font/Subtype/Type0/BaseFont/${name}-${encoding}/Encoding/${encoding}/DescendantFonts[${6 + 2 * i} 0 R]>>`,
      `<</Type/Font/Subtype/CIDFontType0/BaseFont/${name}/CIDSystemInfo<</Registry(Adobe)/Ordering(${ordering})/Supplement 2>>` +
        `/DW 1000/FontDescriptor<</Type/FontDescriptor/FontName/${name}/Flags 4/FontBBox[0 -200 1000 900]` +
        '/ItalicAngle 0/Ascent 800/Descent -200/CapHeight 700/StemV 80>>>>',
    ]),
  ];
  let file = '%PDF-1.4\n';
  const places = objects.map((object, i) => {
    const at = file.length;
    file += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return `${String(at).padStart(10, '0')} 00000 n \n`;
  });
  const table = `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${places.join('')}`;
  const end = `trailer<</Root 1 0 R/Size ${objects.length + 1}>>\nstartxref\n${file.length}\n%%EOF\n`;
  return Buffer.from(file + table + end, 'latin1');
}
