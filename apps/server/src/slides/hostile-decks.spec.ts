import { withoutOutside } from '@cuaderno/formats/slides-in';
import type { DeckKind } from '@cuaderno/formats/slides-in';
import { pptxOf } from '@cuaderno/formats/testing';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Office } from './office.js';

/*
 * Twenty decks that name what lies outside of them: on a server, or on the machine that opens them. None may be asked
 * for, and none may be seen on a page.
 */

const LIMITS = { bytes: 50_000_000, entries: 2000 };
const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

describe('a hostile deck', () => {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-hostile-'));
  /** A picture that nobody may see: all of one colour that is nowhere else. */
  const secret = join(folder, 'secret.png');
  const office = new Office(join(folder, 'profile'));
  let server: Server;
  let asked: string[] = [];
  let web = '';

  beforeAll(async () => {
    const canvas = createCanvas(60, 60);
    const context = canvas.getContext('2d');
    context.fillStyle = '#ff00ff';
    context.fillRect(0, 0, 60, 60);
    writeFileSync(secret, canvas.toBuffer('image/png'));
    server = createServer((request, response) => {
      asked.push(request.url ?? '');
      response.setHeader('content-type', 'image/png');
      response.end(readFileSync(secret));
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    web = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(async () => {
    await office.close();
    await new Promise((resolve) => server.close(resolve));
    rmSync(folder, { recursive: true, force: true });
  });
  beforeEach(() => {
    asked = [];
  });

  /** Whether the secret is to be seen on any page of a PDF. */
  const showsSecret = async (pdf: string): Promise<boolean> => {
    execFileSync('pdftoppm', ['-png', '-r', '20', pdf, join(folder, 'page')]);
    const names = execFileSync('ls', [folder]).toString().split('\n');
    let shows = false;
    for (const name of names.filter((one) => one.startsWith('page'))) {
      const picture = await loadImage(join(folder, name));
      const canvas = createCanvas(picture.width, picture.height);
      canvas.getContext('2d').drawImage(picture, 0, 0);
      const { data } = canvas.getContext('2d').getImageData(0, 0, picture.width, picture.height);
      for (let i = 0; i < data.length; i += 4)
        if (data[i]! > 220 && data[i + 1]! < 60 && data[i + 2]! > 220) shows = true;
      rmSync(join(folder, name));
    }
    return shows;
  };

  const holds = async (deck: Uint8Array, kind: DeckKind): Promise<void> => {
    const closed = withoutOutside(deck, kind, LIMITS);
    const path = join(folder, `closed.${kind}`);
    writeFileSync(path, closed);
    await office.convert(path, kind, 'pdf', new AbortController().signal, async (pdf) => {
      expect(await showsSecret(pdf)).toBeFalse();
      expect(execFileSync('pdftotext', [pdf, '-']).toString()).not.toContain('root:');
    });
    expect(asked).toEqual([]);
  };

  /** A deck of one slide, with a picture on it and relations of its own; other parts as they are said. */
  const pptx = (
    shape: string,
    relations: string,
    more: Record<string, string | Uint8Array> = {},
  ): Uint8Array => {
    const parts = unzipSync(pptxOf([{ title: 'Ebb' }]));
    const slide = 'ppt/slides/slide1.xml';
    const rels = 'ppt/slides/_rels/slide1.xml.rels';
    parts[slide] = strToU8(strFromU8(parts[slide]!).replace('</p:spTree>', `${shape}</p:spTree>`));
    parts[rels] = strToU8(
      strFromU8(parts[rels]!).replace('</Relationships>', `${relations}</Relationships>`),
    );
    for (const [name, is] of Object.entries(more))
      parts[name] = typeof is === 'string' ? strToU8(is) : Uint8Array.from(is);
    const types = '[Content_Types].xml';
    parts[types] = strToU8(
      strFromU8(parts[types]!).replace(
        '<Default Extension="xml"',
        '<Default Extension="svg" ContentType="image/svg+xml"/><Default Extension="vml" ContentType="application/vnd.openxmlformats-officedocument.vmlDrawing"/><Default Extension="docx" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document"/><Default Extension="xml"',
      ),
    );
    return zipSync(parts);
  };
  const external = (id: string, type: string, target: string): string =>
    `<Relationship Id="${id}" Type="${REL}/${type}" Target="${target}" TargetMode="External"/>`;
  const picture = (blip: string, nv = ''): string =>
    `<p:pic><p:nvPicPr><p:cNvPr id="9" name="p"/><p:cNvPicPr/><p:nvPr>${nv}</p:nvPr></p:nvPicPr><p:blipFill><a:blip ${blip}/><a:stretch><a:fillRect/></a:stretch></p:blipFill><p:spPr><a:xfrm><a:off x="3000000" y="3000000"/><a:ext cx="3000000" cy="3000000"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></p:spPr></p:pic>`;
  const embedded = (id: string, type: string, target: string): string =>
    `<Relationship Id="${id}" Type="${REL}/${type}" Target="${target}"/>`;
  const svg = (href: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="60" height="60"><image width="60" height="60" xlink:href="${href}"/><rect width="9" height="9" fill="url(${href}#x)"/></svg>`;

  const PPTX: [string, () => Uint8Array][] = [
    [
      'a picture on a server',
      () => pptx(picture('r:link="rId90"'), external('rId90', 'image', `${web}/a.png`)),
    ],
    [
      'a picture on this machine',
      () => pptx(picture('r:link="rId90"'), external('rId90', 'image', `file://${secret}`)),
    ],
    [
      'a picture by its path',
      () => pptx(picture('r:link="rId90"'), external('rId90', 'image', secret)),
    ],
    [
      'a picture that says it is inside',
      () => pptx(picture('r:embed="rId90"'), embedded('rId90', 'image', `file://${secret}`)),
    ],
    [
      'a film on a server',
      () =>
        pptx(
          picture('r:link="rId91"', '<a:videoFile r:link="rId90"/>'),
          external('rId90', 'video', `${web}/a.mp4`) + external('rId91', 'image', `${web}/p.png`),
        ),
    ],
    [
      'an object that is linked',
      () =>
        pptx(
          `<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="8" name="o"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="0" y="0"/><a:ext cx="900000" cy="900000"/></p:xfrm><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/presentationml/2006/ole"><p:oleObj r:id="rId90" progId="Package"><p:link updateAutomatic="1"/>${picture('r:link="rId91"')}</p:oleObj></a:graphicData></a:graphic></p:graphicFrame>`,
          external('rId90', 'oleObject', `file://${secret}`) +
            external('rId91', 'image', `file://${secret}`),
        ),
    ],
    [
      'a drawing that shows what is elsewhere',
      () =>
        pptx(picture('r:embed="rId90"'), embedded('rId90', 'image', '../media/a.svg'), {
          'ppt/media/a.svg': svg(`file://${secret}`),
        }),
    ],
    [
      'a deck in the deck that does it',
      () =>
        pptx('', embedded('rId90', 'package', '../embeddings/a.docx'), {
          'ppt/embeddings/a.docx': pptx(
            picture('r:link="rId90"'),
            external('rId90', 'image', `${web}/b.png`),
          ),
        }),
    ],
  ];

  const NS =
    'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:script="urn:oasis:names:tc:opendocument:xmlns:script:1.0" xmlns:presentation="urn:oasis:names:tc:opendocument:xmlns:presentation:1.0"';
  const odp = (inside: string, styles = '', more: Record<string, string> = {}): Uint8Array => {
    const manifest = [
      '<manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.presentation"/>',
      '<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/>',
      ...Object.keys(more).map(
        (name) => `<manifest:file-entry manifest:full-path="${name}" manifest:media-type=""/>`,
      ),
    ].join('');
    const parts: Record<string, string> = {
      mimetype: 'application/vnd.oasis.opendocument.presentation',
      'content.xml': `<?xml version="1.0" encoding="UTF-8"?><office:document-content ${NS} office:version="1.3"><office:automatic-styles>${styles}</office:automatic-styles><office:body><office:presentation><draw:page draw:name="p">${inside}</draw:page></office:presentation></office:body></office:document-content>`,
      'META-INF/manifest.xml': `<?xml version="1.0" encoding="UTF-8"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">${manifest}</manifest:manifest>`,
      ...more,
    };
    return zipSync(
      Object.fromEntries(
        Object.entries(parts).map(([name, text]) => [name, [strToU8(text), { level: 0 }] as never]),
      ),
    );
  };
  const frame = (inside: string): string =>
    `<draw:frame svg:x="2cm" svg:y="2cm" svg:width="8cm" svg:height="8cm">${inside}</draw:frame>`;
  const link = 'xlink:type="simple" xlink:show="embed" xlink:actuate="onLoad"';

  const ODP: [string, () => Uint8Array][] = [
    ['a picture on a server', () => odp(frame(`<draw:image xlink:href="${web}/a.png" ${link}/>`))],
    [
      'a picture on this machine',
      () => odp(frame(`<draw:image xlink:href="file://${secret}" ${link}/>`)),
    ],
    [
      'a picture above the deck',
      () => odp(frame(`<draw:image xlink:href="../../../../../../../..${secret}" ${link}/>`)),
    ],
    [
      'a picture whose address has gaps',
      () => odp(frame(`<draw:image xlink:href=" fi&#9;le://${secret}" ${link}/>`)),
    ],
    [
      'a page in another page',
      () => odp(frame(`<draw:floating-frame xlink:href="${web}/page.html" ${link}/>`)),
    ],
    [
      'an object that is elsewhere',
      () => odp(frame(`<draw:object xlink:href="${web}/o.odt" ${link}/>`)),
    ],
    [
      'a film on a server',
      () =>
        odp(
          frame(
            `<draw:plugin xlink:href="${web}/a.mp4" draw:mime-type="application/vnd.sun.star.media" ${link}/>`,
          ),
        ),
    ],
    [
      'a drawing that shows what is elsewhere',
      () =>
        odp(frame(`<draw:image xlink:href="Pictures/a.svg" ${link}/>`), '', {
          'Pictures/a.svg': svg(`${web}/svg.png`),
        }),
    ],
  ];

  for (const [what, make] of PPTX) it(`PPTX, ${what}`, () => holds(make(), 'pptx'));
  for (const [what, make] of ODP) it(`ODP, ${what}`, () => holds(make(), 'odp'));

  /** Decks of the older kind, as LibreOffice writes them, with what they name in them. */
  const ppt = (deck: Uint8Array, from: string): Uint8Array => {
    const path = join(folder, `open.${from}`);
    writeFileSync(path, deck);
    const profile = `-env:UserInstallation=file://${folder}/open-profile`;
    execFileSync(
      'soffice',
      ['--headless', profile, '--convert-to', 'ppt', '--outdir', folder, path],
      {
        stdio: 'ignore',
        timeout: 60_000,
      },
    );
    return readFileSync(join(folder, 'open.ppt'));
  };
  const PPT: [string, () => Uint8Array][] = [
    [
      'a link to a server',
      () =>
        pptx(
          picture('r:embed="rId90"').replace(
            '<p:cNvPr id="9" name="p"/>',
            '<p:cNvPr id="9" name="p"><a:hlinkClick r:id="rId92"/></p:cNvPr>',
          ),
          external('rId92', 'hyperlink', `${web}/link`),
        ),
    ],
    ['a film on a server', () => PPTX[4]![1]()],
    ['a picture on this machine', () => PPTX[1]![1]()],
    ['an object that is linked', () => PPTX[5]![1]()],
  ];
  for (const [what, make] of PPT)
    it(`PPT, ${what}`, async () => {
      const deck = ppt(make(), 'pptx');
      asked = [];
      const closed = withoutOutside(deck, 'ppt', LIMITS);
      const texts = [
        Buffer.from(closed).toString('latin1'),
        Buffer.from(closed).toString('utf16le'),
      ];
      for (const text of texts) {
        expect(text).not.toContain(web);
        expect(text).not.toContain(secret);
      }
      await holds(deck, 'ppt');
    });

  it('is converted without a network, should one name something all the same', async () => {
    const path = join(folder, 'open.odp');
    writeFileSync(path, ODP[0]![1]());
    await office.convert(path, 'odp', 'pdf', new AbortController().signal, async (pdf) => {
      expect(await showsSecret(pdf)).toBeFalse();
    });
    expect(asked).toEqual([]);
  });
});
