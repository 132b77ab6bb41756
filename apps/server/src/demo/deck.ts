import { strToU8, zipSync } from 'fflate';

/** One slide of the demo: its title, lines below it, and what Maren has noted for herself. */
interface DemoSlide {
  readonly title: string;
  readonly lines: readonly string[];
  readonly notes: string;
}

const TIDES: readonly DemoSlide[] = [
  {
    title: 'Why does the sea rise twice a day?',
    lines: ['The moon pulls at the water.', 'The earth turns under two hills of it.'],
    notes: 'Let her find the second hill herself: spin the orange.',
  },
  {
    title: 'Springs and neaps',
    lines: ['Sun and moon in line: springs.', 'Sun and moon at right angles: neaps.'],
    notes: 'Compare with the table of the board before.',
  },
];

const SKY: readonly DemoSlide[] = [
  {
    title: 'Finding north',
    lines: ['The two last stars of the Bear point to it.', 'Five times as far as they are apart.'],
    notes: 'Arms out: one fist is ten degrees.',
  },
  {
    title: 'Why the stars turn',
    lines: ['It is the earth that turns.', 'Once round in a day: fifteen degrees an hour.'],
    notes: 'Noor was away last week: ask her first.',
  },
];

const NAMES = ['office', 'style', 'text', 'draw', 'presentation'] as const;
const NAMESPACES = NAMES.map(
  (name) =>
    `xmlns:${name}="urn:oasis:names:tc:opendocument:xmlns:${name === 'draw' ? 'drawing' : name}:1.0"`,
)
  .concat(
    'xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0"',
    'xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0"',
  )
  .join(' ');

const TYPE = 'application/vnd.oasis.opendocument.presentation';

function frame(y: number, height: number, inside: string, kind = ''): string {
  const place = `svg:x="2cm" svg:y="${y}cm" svg:width="24cm" svg:height="${height}cm"`;
  return `<draw:frame draw:style-name="clear" ${place}${kind}><draw:text-box>${inside}</draw:text-box></draw:frame>`;
}

const words = (style: string, text: string): string =>
  `<text:p text:style-name="${style}">${text}</text:p>`;

function slide({ title, lines, notes }: DemoSlide, i: number): string {
  return (
    `<draw:page draw:name="s${i}" draw:master-page-name="Default">` +
    frame(1.5, 2.5, words('title', title), ' presentation:class="title"') +
    frame(5.5, 6, lines.map((line) => words('line', line)).join('')) +
    `<presentation:notes>${frame(15, 8, words('line', notes), ' presentation:class="notes"')}</presentation:notes></draw:page>`
  );
}

const look = (name: string, font: string, size: number): string =>
  `<style:style style:name="${name}" style:family="paragraph"><style:text-properties fo:font-family="${font}" fo:font-size="${size}pt" fo:color="#1d2b4f"/></style:style>`;

/** Nothing behind the words, and nothing around them. */
const CLEAR =
  '<style:style style:name="clear" style:family="graphic"><style:graphic-properties draw:fill="none" draw:stroke="none"/></style:style>';

/** Slides on the tides, as OpenDocument: made up, and written here. */
export function tideSlides(): Uint8Array {
  return deckOf(TIDES);
}

/** Slides on how the sky moves. */
export function skySlides(): Uint8Array {
  return deckOf(SKY);
}

function deckOf(slides: readonly DemoSlide[]): Uint8Array {
  const content =
    `<?xml version="1.0" encoding="UTF-8"?><office:document-content ${NAMESPACES} office:version="1.3">` +
    `<office:automatic-styles>${CLEAR}${look('title', 'Cambria', 36)}${look('line', 'Calibri', 26)}</office:automatic-styles>` +
    `<office:body><office:presentation>${slides.map(slide).join('')}</office:presentation></office:body></office:document-content>`;
  const styles =
    `<?xml version="1.0" encoding="UTF-8"?><office:document-styles ${NAMESPACES} office:version="1.3"><office:automatic-styles>` +
    '<style:page-layout style:name="L"><style:page-layout-properties fo:page-width="28cm" fo:page-height="15.75cm"/></style:page-layout></office:automatic-styles>' +
    '<office:master-styles><style:master-page style:name="Default" style:page-layout-name="L"/></office:master-styles></office:document-styles>';
  const manifest =
    '<?xml version="1.0" encoding="UTF-8"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">' +
    [
      ['/', TYPE],
      ['content.xml', 'text/xml'],
      ['styles.xml', 'text/xml'],
    ]
      .map(
        ([path, type]) =>
          `<manifest:file-entry manifest:full-path="${path}" manifest:media-type="${type}"/>`,
      )
      .join('') +
    '</manifest:manifest>';
  return zipSync({
    // First, and not packed: so OpenDocument files are known (part 2, 3.3).
    mimetype: [strToU8(TYPE), { level: 0 }],
    'content.xml': strToU8(content),
    'styles.xml': strToU8(styles),
    'META-INF/manifest.xml': strToU8(manifest),
  });
}
