import { plainText } from '@cuaderno/core';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { pptxOf } from '../testing/decks.js';
import { silentWav } from '../testing/media.js';
import { DeckError, deckKind, EMU, isSameFont, points, readDeck, reportOn } from './index.js';
import { readReport } from './stored-report.js';
import type { Deck, DeckFault, Slide } from './index.js';

const LIMITS = { bytes: 20_000_000, entries: 1000 };

function odp(pages: string, before = '', styles = ''): Uint8Array {
  const ns = ['office', 'style', 'text', 'draw', 'presentation', 'anim', 'smil', 'table']
    .map(
      (name) =>
        `xmlns:${name}="urn:oasis:names:tc:opendocument:xmlns:${name === 'draw' ? 'drawing' : name}:1.0"`,
    )
    .concat(
      'xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0"',
      'xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0"',
      'xmlns:xlink="http://www.w3.org/1999/xlink"',
    )
    .join(' ');
  return zipSync({
    mimetype: strToU8('application/vnd.oasis.opendocument.presentation'),
    'META-INF/manifest.xml': strToU8(
      '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>',
    ),
    'content.xml': strToU8(
      `${before}<office:document-content ${ns}><office:automatic-styles>${styles}</office:automatic-styles><office:body><office:presentation>${pages}</office:presentation></office:body></office:document-content>`,
    ),
    'styles.xml': strToU8(
      `<office:document-styles ${ns}><style:page-layout><style:page-layout-properties fo:page-width="28cm" fo:page-height="15.75cm"/></style:page-layout></office:document-styles>`,
    ),
  });
}

function fault(work: () => unknown): DeckFault | 'none' {
  try {
    work();
    return 'none';
  } catch (error) {
    if (error instanceof DeckError) return error.fault;
    throw error;
  }
}

describe('lengths of slides', () => {
  it('are EMU in OOXML: 914,400 to the inch, 360,000 to the centimetre (ECMA-376, 20.1.2.1)', () => {
    expect(914_400 / EMU).toBe(72);
    expect(360_000 / EMU).toBeCloseTo(72 / 2.54, 10);
    const { width, height } = readDeck(pptxOf([{ title: 'Ebb' }]), 'pptx', LIMITS);
    // 12,192,000 × 6,858,000 is 13 1/3 × 7.5 inches, which is 16:9.
    expect([width, height]).toEqual([960, 540]);
    expect(width / height).toBeCloseTo(16 / 9, 10);
  });

  it('have units in OpenDocument (XSL 1.1, 5.9.13)', () => {
    expect(points('1in')).toBe(72);
    expect(points('2.54cm')).toBeCloseTo(72, 10);
    expect(points('25.4mm')).toBeCloseTo(72, 10);
    expect(points('6pc')).toBe(72);
    expect(points('72pt')).toBe(72);
    expect(points('96px')).toBe(72);
    expect(points('-1in')).toBe(-72);
    for (const none of [null, '', 'auto', '50%', 'cm']) expect(points(none)).toBe(0);
  });
});

describe('what slides hold besides their looks', () => {
  it('is read from PPTX: titles, notes, what is hidden and what moves, sounds where they lie', () => {
    const deck = readDeck(
      pptxOf([
        { title: 'High &amp; low water', notes: ['Ask Ida first.', 'Then the others.'] },
        { title: 'Springs', hidden: true, animated: true, font: 'Comic Relief' },
        {
          title: 'Listen',
          media: {
            name: 'horn.wav',
            bytes: silentWav(),
            at: [914_400, 1_828_800, 2_743_200, 914_400],
            kind: 'audio',
          },
        },
      ]),
      'pptx',
      LIMITS,
    );
    const [first, second, third] = deck.slides;
    expect(first!.title).toBe('High & low water');
    expect(plainText(first!.notes)).toBe('Ask Ida first.\nThen the others.');
    expect([first!.hidden, first!.animated]).toEqual([false, false]);
    expect([second!.hidden, second!.animated]).toEqual([true, true]);
    expect(second!.notes).toEqual([]);
    expect(second!.fonts).toContain('Comic Relief');
    expect(first!.fonts).toContain('Calibri');
    expect(third!.media).toEqual([
      {
        path: 'ppt/media/horn.wav',
        name: 'horn.wav',
        frame: { x: 72, y: 144, width: 216, height: 72, turn: 0 },
        poster: 'ppt/media/dot.png',
      },
    ]);
  });

  it('takes a slide for moving only where its change is of some kind', () => {
    const made = unzipSync(pptxOf([{ title: 'Ebb' }]));
    const path = 'ppt/slides/slide1.xml';
    const withEntry = (entry: string): Uint8Array =>
      zipSync({
        ...made,
        [path]: strToU8(strFromU8(made[path]!).replace('</p:sld>', `${entry}</p:sld>`)),
      });
    const moves = (entry: string): boolean =>
      readDeck(withEntry(entry), 'pptx', LIMITS).slides[0]!.animated;
    expect(moves('<p:transition spd="slow"/>')).toBeFalse();
    expect(moves('<p:transition><p:sndAc/><p:extLst/></p:transition>')).toBeFalse();
    expect(moves('<p:transition><p:push dir="u"/></p:transition>')).toBeTrue();
  });

  it('knows a theme’s fonts by the master of the slide, whatever the presentation names', () => {
    const made = unzipSync(pptxOf([{ title: 'Ebb', font: '+mn-lt' }]));
    const rels = 'ppt/_rels/presentation.xml.rels';
    const without = strFromU8(made[rels]!).replace(/<Relationship [^>]*theme1.xml"\/>/, '');
    const deck = readDeck(zipSync({ ...made, [rels]: strToU8(without) }), 'pptx', LIMITS);
    expect(deck.slides[0]!.fonts).toEqual(['Calibri', 'Cambria']);
  });

  it('is read from ODP, too', () => {
    const deck = readDeck(
      odp(
        `<draw:page draw:style-name="dp1"><draw:frame presentation:class="title"><draw:text-box><text:p>High<text:s text:c="2"/>water</text:p></draw:text-box></draw:frame>
         <draw:frame draw:name="Horn" svg:x="2.54cm" svg:y="1in" svg:width="10cm" svg:height="36pt"><draw:plugin xlink:href="Media/horn.wav" draw:mime-type="application/vnd.sun.star.media"/><draw:image xlink:href="Pictures/horn.png"/></draw:frame>
         <presentation:notes><draw:frame presentation:class="notes"><draw:text-box><text:list><text:list-item><text:p>Ask Ida</text:p></text:list-item></text:list><text:p>Then wait</text:p><text:p/></draw:text-box></draw:frame></presentation:notes></draw:page>
         <draw:page draw:style-name="dp2"><draw:frame><draw:plugin xlink:href="https://example.org/x.mp4" draw:mime-type="application/vnd.sun.star.media"/></draw:frame><anim:par presentation:preset-class="entrance"/></draw:page>`,
        '',
        '<style:style style:name="dp1"><style:drawing-page-properties/></style:style><style:style style:name="dp2"><style:drawing-page-properties presentation:visibility="hidden"/></style:style>',
      ),
      'odp',
      LIMITS,
    );
    const [first, second] = deck.slides;
    expect(deck.width).toBeCloseTo((28 / 2.54) * 72, 6);
    expect(first!.title).toBe('High water');
    expect(first!.notes).toEqual([
      { list: 'dots', runs: [{ text: 'Ask Ida' }] },
      { runs: [{ text: 'Then wait' }] },
    ]);
    expect(first!.media[0]!.path).toBe('Media/horn.wav');
    expect(first!.media[0]!.frame.x).toBeCloseTo(72, 6);
    expect(first!.media[0]!.frame.y).toBe(72);
    expect(first!.media[0]!.frame.height).toBe(36);
    expect([second!.hidden, second!.animated]).toEqual([true, true]);
    expect(second!.media[0]!.path).withContext('it lies elsewhere').toBeNull();
  });
});

describe('decks that are none, or traps', () => {
  const good = pptxOf([{ title: 'Ebb' }]);
  const changed = (path: string, to: string): Uint8Array =>
    zipSync({ ...unzipSync(good), [path]: strToU8(to) });

  it('are known by their content', () => {
    expect(deckKind(good, LIMITS)).toBe('pptx');
    expect(deckKind(odp('<draw:page/>'), LIMITS)).toBe('odp');
    expect(deckKind(zipSync({ 'board.json': strToU8('{}') }), LIMITS)).toBeNull();
    expect(deckKind(good.subarray(0, good.length / 2), LIMITS)).toBeNull();
    expect(deckKind(strToU8('%PDF-1.7'), LIMITS)).toBeNull();
    const ole = (name: string): Uint8Array =>
      Uint8Array.from([
        ...[0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1],
        ...new Uint8Array(600),
        ...[...name].flatMap((letter) => [letter.charCodeAt(0), 0]),
      ]);
    expect(deckKind(ole('PowerPoint Document'), LIMITS)).toBe('ppt');
    expect(deckKind(ole('WordDocument'), LIMITS)).toBeNull();
    expect(fault(() => deckKind(ole('EncryptedPackage'), LIMITS))).toBe('locked');
  });

  it('are refused', () => {
    const bomb = '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><x>&b;</x>';
    const read = (bytes: Uint8Array, limits = LIMITS) =>
      fault(() => readDeck(bytes, 'pptx', limits));
    expect(read(changed('ppt/presentation.xml', bomb))).toBe('unsafe');
    expect(read(changed('ppt/slides/slide1.xml', bomb))).toBe('unsafe');
    expect(read(changed('ppt/presentation.xml', '<p:presentation'))).toBe('broken');
    expect(read(changed('ppt/presentation.xml', '<nothing/>'))).toBe('broken');
    expect(read(changed('../outside.xml', '<x/>'))).toBe('unsafe');
    expect(read(changed('ppt/media/big.bin', ' '.repeat(8_000_000)))).toBe('too-large');
    expect(read(good, { ...LIMITS, entries: 3 })).toBe('too-large');
    expect(read(strToU8('PK\x03\x04'))).toBe('broken');
    const locked = zipSync({
      ...unzipSync(odp('<draw:page/>')),
      'META-INF/manifest.xml': strToU8(
        '<m:manifest xmlns:m="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"><m:file-entry><m:encryption-data/></m:file-entry></m:manifest>',
      ),
    });
    expect(fault(() => readDeck(locked, 'odp', LIMITS))).toBe('locked');
    expect(fault(() => readDeck(odp('<draw:page/>', bomb.slice(0, 60)), 'odp', LIMITS))).toBe(
      'unsafe',
    );
  });
});

describe('the report', () => {
  const deckOf = (...slides: readonly Partial<Slide>[]): Deck => ({
    width: 960,
    height: 540,
    slides: slides.map((slide) => ({
      ...{ title: '', notes: [], hidden: false, animated: false, media: [], fonts: [] },
      letters: '',
      ...slide,
    })),
  });

  it('names letters that no font has, and counts titles and notes that there are', () => {
    const report = reportOn(
      deckOf(
        { title: 'Ebb', letters: 'éᚠ\u00a0\ufe0f' },
        { notes: [{ runs: [{ text: 'Wait' }] }] },
        {},
      ),
      [],
      [],
      { standIn: new Map(), has: (code) => code < 0x1000 },
    );
    expect(report.changed.map(({ number, letters }) => [number, letters])).toEqual([[1, ['ᚠ']]]);
    expect([report.named, report.noted]).toEqual([1, 1]);
  });

  it('is read as it was kept before fonts were told once', () => {
    const part = { flattened: false, hidden: false, notes: false, media: [] };
    const fonts = [{ asked: 'Calibri', used: 'Carlito' }];
    const kept = {
      slides: 3,
      changed: [
        { number: 1, title: 'Ebb', ...part, fonts },
        { number: 3, title: 'Flow', ...part, hidden: true, fonts },
      ],
    };
    const read = readReport(JSON.parse(JSON.stringify(kept)));
    expect(read.fonts).toEqual([{ asked: 'Calibri', used: 'Carlito', slides: [1, 3] }]);
    expect(read.changed.map(({ number }) => number)).toEqual([3]);
    expect(readReport(JSON.parse(JSON.stringify(read)))).toEqual(read);
  });

  it('says what stands in for a font only where it does', () => {
    const fonts = { standIn: new Map([['Calibri', 'Carlito']]), has: () => true };
    const used = [['Carlito'], ['LiberationSans'], ['Caladea'], ['Carlito']];
    const report = reportOn(
      deckOf(
        { fonts: ['Calibri'] },
        { fonts: ['Calibri', 'Liberation Sans'] },
        { fonts: ['Cambria'], animated: true },
        { fonts: ['Calibri'] },
      ),
      used,
      [[], [], [], []],
      fonts,
    );
    expect(report.slides).toBe(4);
    expect(report.fonts).toEqual([{ asked: 'Calibri', used: 'Carlito', slides: [1, 4] }]);
    expect(report.changed.map(({ number }) => number)).toEqual([3]);
    expect(report.changed[0]!.flattened).toBeTrue();
    expect(isSameFont('Times New Roman', 'TimesNewRomanPSMT')).toBeTrue();
  });
});
