import { strToU8, zipSync } from 'fflate';

/** What a made-up deck has on one slide. */
export interface MadeSlide {
  readonly title: string;
  readonly notes?: readonly string[];
  readonly hidden?: boolean;
  readonly animated?: boolean;
  readonly font?: string;
  /** A film or sound, and where it lies in EMU. */
  readonly media?: {
    readonly name: string;
    readonly bytes: Uint8Array;
    readonly at: readonly [x: number, y: number, width: number, height: number];
    readonly kind: 'video' | 'audio';
  };
}

const NS =
  'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" ' +
  'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" ' +
  'xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main" ' +
  'xmlns:p14="http://schemas.microsoft.com/office/powerpoint/2010/main"';
const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
/** A PNG (ISO/IEC 15948) of one grey pixel. */
const DOT = Uint8Array.from(
  atob(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
  ),
  (letter) => letter.charCodeAt(0),
);

function rels(list: readonly (readonly [id: string, type: string, target: string])[]): string {
  const entries = list.map(
    ([id, type, target]) =>
      `<Relationship Id="${id}" Type="${type.includes('/') && !type.startsWith('/') ? type : REL + type}" Target="${target}"/>`,
  );
  return `${HEAD}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${entries.join('')}</Relationships>`;
}

const tree = (inside: string): string =>
  '<p:cSld><p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr>' +
  `<p:grpSpPr/>${inside}</p:spTree></p:cSld>`;

const shape = (id: number, ph: string, frame: string, paragraphs: string): string =>
  `<p:sp><p:nvSpPr><p:cNvPr id="${id}" name="s${id}"/><p:cNvSpPr/><p:nvPr>${ph}</p:nvPr></p:nvSpPr>` +
  `<p:spPr>${frame}<a:prstGeom prst="rect"><a:avLst/></a:prstGeom></p:spPr><p:txBody><a:bodyPr/><a:lstStyle/>${paragraphs}</p:txBody></p:sp>`;

const xfrm = (x: number, y: number, cx: number, cy: number): string =>
  `<a:xfrm><a:off x="${x}" y="${y}"/><a:ext cx="${cx}" cy="${cy}"/></a:xfrm>`;

const paragraph = (words: string, font?: string): string =>
  `<a:p><a:r><a:rPr lang="en">${font ? `<a:latin typeface="${font}"/>` : ''}</a:rPr><a:t>${words}</a:t></a:r></a:p>`;

const COLOURS = [
  'dk1',
  'lt1',
  'dk2',
  'lt2',
  'accent1',
  'accent2',
  'accent3',
  'accent4',
  'accent5',
  'accent6',
  'hlink',
  'folHlink',
]
  .map((name, i) => `<a:${name}><a:srgbClr val="${i % 2 ? 'FFFFFF' : '1D2B4F'}"/></a:${name}>`)
  .join('');

const THEME =
  `${HEAD}<a:theme ${NS} name="t"><a:themeElements><a:clrScheme name="c">${COLOURS}</a:clrScheme>` +
  '<a:fontScheme name="f"><a:majorFont><a:latin typeface="Calibri"/><a:ea typeface=""/><a:cs typeface=""/></a:majorFont>' +
  '<a:minorFont><a:latin typeface="Cambria"/><a:ea typeface=""/><a:cs typeface=""/></a:minorFont></a:fontScheme>' +
  '<a:fmtScheme name="x"><a:fillStyleLst><a:solidFill><a:schemeClr val="phClr"/></a:solidFill><a:solidFill><a:schemeClr val="phClr"/></a:solidFill><a:solidFill><a:schemeClr val="phClr"/></a:solidFill></a:fillStyleLst>' +
  '<a:lnStyleLst><a:ln/><a:ln/><a:ln/></a:lnStyleLst><a:effectStyleLst><a:effectStyle><a:effectLst/></a:effectStyle><a:effectStyle><a:effectLst/></a:effectStyle><a:effectStyle><a:effectLst/></a:effectStyle></a:effectStyleLst>' +
  '<a:bgFillStyleLst><a:solidFill><a:schemeClr val="phClr"/></a:solidFill><a:solidFill><a:schemeClr val="phClr"/></a:solidFill><a:solidFill><a:schemeClr val="phClr"/></a:solidFill></a:bgFillStyleLst></a:fmtScheme></a:themeElements></a:theme>';

/** A 16:9 presentation of ECMA-376, 12,192,000 × 6,858,000 EMU, as far as its readers ask for. */
export function pptxOf(slides: readonly MadeSlide[]): Uint8Array {
  const files: Record<string, string | Uint8Array> = {
    '_rels/.rels': rels([['rId1', '/officeDocument', 'ppt/presentation.xml']]),
    'ppt/theme/theme1.xml': THEME,
    'ppt/slideMasters/slideMaster1.xml': `${HEAD}<p:sldMaster ${NS}>${tree('')}<p:clrMap bg1="lt1" tx1="dk1" bg2="lt2" tx2="dk2" accent1="accent1" accent2="accent2" accent3="accent3" accent4="accent4" accent5="accent5" accent6="accent6" hlink="hlink" folHlink="folHlink"/><p:sldLayoutIdLst><p:sldLayoutId id="2147483649" r:id="rId1"/></p:sldLayoutIdLst></p:sldMaster>`,
    'ppt/slideMasters/_rels/slideMaster1.xml.rels': rels([
      ['rId1', '/slideLayout', '../slideLayouts/slideLayout1.xml'],
      ['rId2', '/theme', '../theme/theme1.xml'],
    ]),
    'ppt/slideLayouts/slideLayout1.xml': `${HEAD}<p:sldLayout ${NS}>${tree('')}</p:sldLayout>`,
    'ppt/slideLayouts/_rels/slideLayout1.xml.rels': rels([
      ['rId1', '/slideMaster', '../slideMasters/slideMaster1.xml'],
    ]),
  };
  const types: string[] = [
    ['/ppt/presentation.xml', 'presentation.main'],
    ['/ppt/slideMasters/slideMaster1.xml', 'slideMaster'],
    ['/ppt/slideLayouts/slideLayout1.xml', 'slideLayout'],
  ].map(
    ([part, kind]) =>
      `<Override PartName="${part}" ContentType="application/vnd.openxmlformats-officedocument.presentationml.${kind}+xml"/>`,
  );
  types.push(
    '<Override PartName="/ppt/theme/theme1.xml" ContentType="application/vnd.openxmlformats-officedocument.theme+xml"/>',
  );
  slides.forEach((slide, i) => addSlide(slide, i + 1, files, types));
  files['ppt/presentation.xml'] =
    `${HEAD}<p:presentation ${NS}><p:sldMasterIdLst><p:sldMasterId id="2147483648" r:id="rIdM"/></p:sldMasterIdLst>` +
    `<p:sldIdLst>${slides.map((_, i) => `<p:sldId id="${256 + i}" r:id="rId${i + 1}"/>`).join('')}</p:sldIdLst>` +
    '<p:sldSz cx="12192000" cy="6858000"/><p:notesSz cx="6858000" cy="9144000"/></p:presentation>';
  files['ppt/_rels/presentation.xml.rels'] = rels([
    ['rIdM', '/slideMaster', 'slideMasters/slideMaster1.xml'],
    ['rIdT', '/theme', 'theme/theme1.xml'],
    ...slides.map((_, i) => [`rId${i + 1}`, '/slide', `slides/slide${i + 1}.xml`] as const),
  ]);
  files['[Content_Types].xml'] =
    `${HEAD}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Default Extension="png" ContentType="image/png"/><Default Extension="mp4" ContentType="video/mp4"/><Default Extension="webm" ContentType="video/webm"/><Default Extension="wav" ContentType="audio/wav"/>${types.join('')}</Types>`;
  return zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, is]) => [name, typeof is === 'string' ? strToU8(is) : is]),
    ),
  );
}

function addSlide(
  slide: MadeSlide,
  n: number,
  files: Record<string, string | Uint8Array>,
  types: string[],
): void {
  const { title, notes, hidden, animated, font, media } = slide;
  const list: (readonly [string, string, string])[] = [
    ['rId1', '/slideLayout', '../slideLayouts/slideLayout1.xml'],
  ];
  let picture = '';
  if (media) {
    const [x, y, cx, cy] = media.at;
    files[`ppt/media/${media.name}`] = media.bytes;
    files['ppt/media/dot.png'] = DOT;
    list.push(
      ['rId2', `/${media.kind}`, `../media/${media.name}`],
      [
        'rId3',
        'http://schemas.microsoft.com/office/2007/relationships/media',
        `../media/${media.name}`,
      ],
      ['rId4', '/image', '../media/dot.png'],
    );
    picture =
      `<p:pic><p:nvPicPr><p:cNvPr id="7" name="${media.name}"/><p:cNvPicPr/><p:nvPr><a:${media.kind}File r:link="rId2"/>` +
      '<p:extLst><p:ext uri="{DAA4B4D4-6D71-4841-9C94-3DE7FCFB9230}"><p14:media r:embed="rId3"/></p:ext></p:extLst></p:nvPr></p:nvPicPr>' +
      `<p:blipFill><a:blip r:embed="rId4"/><a:stretch><a:fillRect/></a:stretch></p:blipFill><p:spPr>${xfrm(x, y, cx, cy)}<a:prstGeom prst="rect"><a:avLst/></a:prstGeom></p:spPr></p:pic>`;
  }
  if (notes) {
    list.push(['rId9', '/notesSlide', `../notesSlides/notesSlide${n}.xml`]);
    files[`ppt/notesSlides/notesSlide${n}.xml`] =
      `${HEAD}<p:notes ${NS}>${tree(shape(2, '<p:ph type="body" idx="1"/>', '', notes.map((words) => paragraph(words)).join('')))}</p:notes>`;
    files[`ppt/notesSlides/_rels/notesSlide${n}.xml.rels`] = rels([
      ['rId1', '/slide', `../slides/slide${n}.xml`],
    ]);
    types.push(
      `<Override PartName="/ppt/notesSlides/notesSlide${n}.xml" ContentType="application/vnd.openxmlformats-officedocument.presentationml.notesSlide+xml"/>`,
    );
  }
  const timing = animated
    ? '<p:transition><p:fade/></p:transition><p:timing><p:tnLst><p:par><p:cTn id="1" dur="indefinite" nodeType="tmRoot"><p:childTnLst><p:par><p:cTn id="2" presetID="1" presetClass="entr" fill="hold"/></p:par></p:childTnLst></p:cTn></p:par></p:tnLst></p:timing>'
    : '';
  const frame = xfrm(609_600, 304_800, 10_972_800, 1_143_000);
  const below = xfrm(609_600, 2_000_000, 5_000_000, 1_143_000);
  files[`ppt/slides/slide${n}.xml`] =
    `${HEAD}<p:sld ${NS}${hidden ? ' show="0"' : ''}>` +
    tree(
      shape(2, '<p:ph type="title"/>', frame, paragraph(title)) +
        shape(3, '', below, paragraph(`Words of slide ${n}`, font)) +
        picture,
    ) +
    `<p:clrMapOvr><a:masterClrMapping/></p:clrMapOvr>${timing}</p:sld>`;
  files[`ppt/slides/_rels/slide${n}.xml.rels`] = rels(list);
  types.push(
    `<Override PartName="/ppt/slides/slide${n}.xml" ContentType="application/vnd.openxmlformats-officedocument.presentationml.slide+xml"/>`,
  );
}
