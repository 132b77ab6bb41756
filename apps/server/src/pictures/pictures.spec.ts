import { changeItem, newId, operation } from '@cuaderno/core';
import { unembeddedPdf } from '@cuaderno/formats/testing';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as zlib from 'node:zlib';
import { House } from '../testing/harness.js';
import { ImageProcess } from './image-process.js';

/** 40 × 20: red, green above; blue, white below. */
function flag(type: 'image/png' | 'image/jpeg' | 'image/webp' | 'image/gif'): Buffer {
  const canvas = createCanvas(40, 20);
  const context = canvas.getContext('2d');
  const fill = (colour: string, x: number, y: number): void => {
    context.fillStyle = colour;
    context.fillRect(x, y, 20, 10);
  };
  fill('#ff0000', 0, 0);
  fill('#00a000', 20, 0);
  fill('#0000ff', 0, 10);
  fill('#ffffff', 20, 10);
  return canvas.toBuffer(type as 'image/png');
}

/** A JPEG that says how it is to be turned (EXIF 2.3, tag 0x0112), and where it was taken. */
function turnedJpeg(orientation: number): Buffer {
  const tiff = Buffer.from([
    0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1, 1, 0x12, 0, 3, 0, 0, 0, 1, 0, 0, 0, 0,
  ]);
  tiff.writeUInt16BE(orientation, 18);
  const body = Buffer.concat([
    Buffer.from('Exif\0\0'),
    tiff,
    Buffer.from('\0\0\0\0taken at Solvik'),
  ]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  const jpeg = flag('image/jpeg');
  return Buffer.concat([jpeg.subarray(0, 2), head, body, jpeg.subarray(2)]);
}

/** A PNG's head that promises so many pixels; there are none. */
function hugePng(side: number): Buffer {
  const bytes = Buffer.from(flag('image/png'));
  bytes.writeUInt32BE(side, 16);
  bytes.writeUInt32BE(side, 20);
  return bytes;
}

function bmp(): Buffer {
  const bytes = Buffer.alloc(54 + 40 * 20 * 3, 0xff);
  bytes.fill(0, 0, 54);
  bytes.write('BM');
  bytes.writeUInt32LE(bytes.length, 2);
  bytes.writeUInt32LE(54, 10);
  bytes.writeUInt32LE(40, 14);
  bytes.writeInt32LE(40, 18);
  bytes.writeInt32LE(20, 22);
  bytes.writeUInt16LE(1, 26);
  bytes.writeUInt16LE(24, 28);
  return bytes;
}

const svg = (inside: string, before = ''): Buffer =>
  Buffer.from(
    `${before}<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20">` +
      `<rect width="40" height="20" fill="#ff0000"/>${inside}</svg>`,
  );

describe('bringing a picture', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('pictures');
  });
  afterEach(() => house.close());

  const send = (bytes: Buffer, name = 'sky.png') =>
    house.tutor.request('POST', `/boards/${house.board}/material?name=${name}`, bytes, {
      'content-type': 'application/octet-stream',
    });
  const bring = async (bytes: Buffer): Promise<{ file: string; width: number; height: number }> => {
    const response = await send(bytes);
    expect(response.statusCode).withContext(response.body).toBe(201);
    return response.json();
  };
  const fault = async (bytes: Buffer): Promise<string> =>
    (await send(bytes)).json<{ type: string }>().type.replace('urn:cuaderno:', '');
  const pixels = async (
    file: string,
  ): Promise<{ size: number[]; at(x: number, y: number): string }> => {
    const { rawPayload } = await house.tutor.get(`/files/${file}`);
    const image = await loadImage(rawPayload);
    const canvas = createCanvas(image.width, image.height);
    const context = canvas.getContext('2d');
    context.drawImage(image, 0, 0);
    return {
      size: [image.width, image.height],
      at(x, y) {
        const [r, g, b] = context.getImageData(x, y, 1, 1).data;
        if (r! > 200 && g! > 200 && b! > 200) return 'white';
        return r! > g! && r! > b! ? 'red' : g! > b! ? 'green' : 'blue';
      },
    };
  };
  const stored = (): number => {
    const { folder } = house.app.files;
    return readdirSync(folder, { recursive: true, withFileTypes: true }).filter((e) => e.isFile())
      .length;
  };

  it('takes what cameras, screens and drawing programs make', async () => {
    const kinds = [
      flag('image/png'),
      flag('image/jpeg'),
      flag('image/webp'),
      flag('image/gif'),
      bmp(),
    ];
    for (const bytes of kinds) {
      const { file, width, height } = await bring(bytes);
      expect([width, height]).toEqual([40, 20]);
      const { headers } = await house.tutor.get(`/files/${file}`);
      expect(String(headers['content-type'])).toMatch(/^image\/(png|jpeg)$/);
      expect(headers['x-content-type-options']).toBe('nosniff');
    }
    const { width, height } = await bring(svg(''));
    expect([width / height, Math.max(width, height)]).toEqual([2, 2400]);
  });

  it('keeps a PNG as it is, once, and nothing of what it was made from', async () => {
    const png = flag('image/png');
    const { file } = await bring(png);
    expect((await house.tutor.get(`/files/${file}`)).rawPayload.equals(png)).toBeTrue();
    await bring(png);
    await bring(flag('image/webp'));
    expect(stored()).toBe(2);
  });

  it('shows a photo upright, in all eight ways a camera can be held (EXIF 2.3)', async () => {
    // Which of the stored quarters is seen at the top left, top right, bottom left, bottom right.
    const seen: Record<number, string[]> = {
      1: ['red', 'green', 'blue', 'white'],
      2: ['green', 'red', 'white', 'blue'],
      3: ['white', 'blue', 'green', 'red'],
      4: ['blue', 'white', 'red', 'green'],
      5: ['red', 'blue', 'green', 'white'],
      6: ['blue', 'red', 'white', 'green'],
      7: ['white', 'green', 'blue', 'red'],
      8: ['green', 'white', 'red', 'blue'],
    };
    for (const [orientation, quarters] of Object.entries(seen)) {
      const { file, width, height } = await bring(turnedJpeg(Number(orientation)));
      const { size, at } = await pixels(file);
      expect(size).toEqual([width, height]);
      expect(size).toEqual(Number(orientation) > 4 ? [20, 40] : [40, 20]);
      const [w, h] = [width, height];
      const found = [at(4, 4), at(w - 5, 4), at(4, h - 5), at(w - 5, h - 5)];
      expect(found).withContext(orientation).toEqual(quarters);
    }
  });

  it('forgets where a photo was taken, and leaves its pixels alone', async () => {
    const { file } = await bring(turnedJpeg(1));
    const { rawPayload } = await house.tutor.get(`/files/${file}`);
    expect(rawPayload.includes('Solvik')).toBeFalse();
    expect(rawPayload.equals(flag('image/jpeg'))).toBeTrue();
  });

  it('forgets what is noted in a PNG, and leaves its pixels alone (ISO/IEC 15948, 11.3)', async () => {
    const bare = flag('image/png');
    const chunk = (name: string, text: string): Buffer => {
      const content = Buffer.from(text, 'latin1');
      const out = Buffer.alloc(12 + content.length);
      out.writeUInt32BE(content.length, 0);
      out.write(name, 4, 'latin1');
      content.copy(out, 8);
      out.writeUInt32BE(
        (zlib as unknown as { crc32(of: Buffer): number }).crc32(
          out.subarray(4, 8 + content.length),
        ),
        8 + content.length,
      );
      return out;
    };
    const notes = [
      ['tEXt', 'Author\0Maren of Pier Road 7'],
      ['eXIf', 'MM\0*59.9139 N 10.7522 E'],
      ['tIME', '1234567'],
      ['prVt', 'what a program keeps for itself'],
    ] as const;
    const noted = Buffer.concat([
      ...[
        bare.subarray(0, 33),
        ...notes.map(([name, text]) => chunk(name, text)),
        bare.subarray(33),
      ],
      Buffer.from('and something after its end'),
    ]);
    const { file } = await bring(noted);
    const kept = (await house.tutor.get(`/files/${file}`)).rawPayload;
    for (const secret of ['Pier Road', '59.9139', 'keeps for itself', 'after its end'])
      expect(kept.toString('latin1')).not.toContain(secret);
    expect(kept.equals(bare)).toBeTrue();
  });

  it('makes a large photo as small as is of use', async () => {
    const canvas = createCanvas(6000, 3000);
    canvas.getContext('2d').fillRect(0, 0, 6000, 3000);
    const { width, height } = await bring(canvas.toBuffer('image/jpeg'));
    expect(width).toBeLessThanOrEqual(4200);
    expect(width * height).toBeLessThanOrEqual(12_100_000);
    expect(width / height).toBeCloseTo(2, 2);
  });

  it('makes an SVG a picture: nothing in it runs, and nothing is fetched', async () => {
    const asked: string[] = [];
    const { createServer } = await import('node:http');
    const outside = createServer((request, response) => {
      asked.push(request.url ?? '');
      response.end();
    });
    await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
    const { port } = outside.address() as { port: number };
    const url = `http://127.0.0.1:${port}/spy.png`;
    const { file } = await bring(
      svg(
        `<script>fetch("${url}")</script><image href="${url}" width="9" height="9"/>` +
          `<style>@import url("${url}");</style><use href="${url}#x"/>`,
      ),
    );
    const { headers, rawPayload } = await house.tutor.get(`/files/${file}`);
    expect(headers['content-type']).toBe('image/png');
    expect(rawPayload.includes('script')).toBeFalse();
    expect((await pixels(file)).at(5, 5)).toBe('red');
    await new Promise((done) => outside.close(done));
    expect(asked).toEqual([]);
  });

  it('says what is wrong with what can’t be a picture, and keeps nothing of it', async () => {
    const bomb = '<!DOCTYPE svg [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;">]>';
    const png = flag('image/png');
    expect(await fault(Buffer.from('Dear student'))).toBe('material-unknown');
    expect(await fault(Buffer.from('%PDF-1.7\n%%EOF'))).toBe('material-unknown');
    expect(await fault(Buffer.from('<html><body>no</body></html>'))).toBe('material-unknown');
    expect(await fault(hugePng(30_000))).toBe('picture-too-large');
    expect(await fault(hugePng(0))).toBe('picture-broken');
    expect(await fault(png.subarray(0, 40))).toBe('picture-broken');
    expect(await fault(turnedJpeg(1).subarray(0, 60))).toBe('picture-broken');
    expect(await fault(svg('', bomb))).toBe('picture-unsafe');
    expect(await fault(Buffer.alloc(0))).toBe('file-empty');
    expect(
      await fault(Buffer.concat([png.subarray(0, 8), zlib.deflateSync(Buffer.alloc(99))])),
    ).toBe('picture-broken');
    expect(stored()).toBe(0);
  });

  it('is the tutor’s to do, and for those who may see the board to see', async () => {
    const { student, page } = await house.lesson();
    const { file } = await bring(flag('image/png'));
    const seen = async (): Promise<number> => (await student.get(`/files/${file}`)).statusCode;
    expect(await seen())
      .withContext('it lies nowhere yet')
      .toBe(404);
    const host = (await house.app.bus.host(house.board))!;
    const maren = { id: newId(), role: 'tutor', trust: 'hands' } as const;
    const laid = operation({
      kind: 'item.add',
      page,
      item: {
        kind: 'picture',
        file,
        frame: { x: 0, y: 0, width: 40, height: 20, turn: 0 },
        order: 'a0',
        layer: 'material',
      },
    });
    await host.applyAs([laid], maren);
    expect(await seen()).toBe(200);
    const hidden = changeItem(host.board, page, laid.id, { hidden: true })!;
    await host.applyAs([operation(hidden)], maren);
    expect(await seen())
      .withContext('it is hidden')
      .toBe(404);
    const url = `/boards/${house.board}/material`;
    const response = await student.request('POST', url, flag('image/png'), {
      'content-type': 'application/octet-stream',
    });
    expect(response.statusCode).toBe(401);
    const stranger = house.visitor();
    expect((await stranger.get(`/files/${file}`)).statusCode).toBe(401);
    expect(readFileSync(house.app.files.path(file)).length).toBeGreaterThan(0);
  });
});

describe('the image process', () => {
  it('draws letters of fonts that a PDF names and hasn’t got: ours, not boxes', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'cuaderno-image-process-'));
    const path = join(folder, 'tides.pdf');
    writeFileSync(path, unembeddedPdf(['月亮潮汐', '月のひかり', '달과바다']));
    const imageProcess = new ImageProcess({ warn: () => undefined } as never);
    const news = await imageProcess.show({
      ...{ type: 'pdf', path, page: 1, side: 600, webp: false, across: null },
    });
    await imageProcess.close();
    if (news.kind !== 'shown') throw new Error(news.kind);
    const picture = await loadImage(Buffer.from(news.picture));
    const context = createCanvas(picture.width, picture.height).getContext('2d');
    context.drawImage(picture, 0, 0);
    const dark = (x: number, y: number): boolean => context.getImageData(x, y, 1, 1).data[0]! < 120;
    // Strokes of 月 and 달 that lie to the right of the box which stands for a letter that is missing.
    const across = (y: number): boolean =>
      Array.from({ length: 24 }, (_, i) => 90 + i).some((x) => dark(x, y));
    expect([72, 192, 290].map(across)).toEqual([true, true, true]);
  });

  it('outlives a decoder that dies: that file is refused, the next is taken', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'cuaderno-image-process-'));
    const path = join(folder, 'flag.png');
    writeFileSync(path, flag('image/png'));
    const imageProcess = new ImageProcess({ warn: () => undefined } as never);
    const dying = imageProcess.prepare(path);
    const next = imageProcess.prepare(path);
    imageProcess.child!.kill('SIGKILL');
    expect(await dying).toEqual({ kind: 'fault', fault: 'broken' });
    expect((await next).kind).toBe('picture');
    await imageProcess.close();
  });
});
