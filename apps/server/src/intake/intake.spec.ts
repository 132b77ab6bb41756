import { createCanvas, loadImage } from '@napi-rs/canvas';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { newId, operation } from '@cuaderno/core';
import type { Actor } from '@cuaderno/core';
import { film, silentMp3, silentWav } from '@cuaderno/formats/testing';
import { hostOf } from '../live/lesson-bus.js';
import { House } from '../testing/harness.js';

describe('bringing a sound or a film', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('material');
  });
  afterEach(() => house.close());

  const send = (bytes: Uint8Array, name: string) =>
    house.tutor.request(
      'POST',
      `/boards/${house.board}/material?name=${name}`,
      Buffer.from(bytes),
      {
        'content-type': 'application/octet-stream',
      },
    );
  const fault = async (bytes: Uint8Array): Promise<string> =>
    (await send(bytes, 'x.mp4')).json<{ type: string }>().type.replace('urn:cuaderno:', '');

  it('goes by what is in it, not by its name', async () => {
    for (const [bytes, name, kind, type] of [
      [silentWav(3), 'horn.wav', 'sound', 'audio/wav'],
      [silentMp3(), 'horn.png', 'sound', 'audio/mpeg'],
      [await film('webm'), 'waves.pdf', 'film', 'video/webm'],
      [await film('mp4'), 'waves', 'film', 'video/mp4'],
    ] as const) {
      const response = await send(bytes, name);
      expect(response.statusCode).withContext(response.body).toBe(201);
      const kept = response.json<{ kind: string; file: string; length: number }>();
      expect(kept.kind).withContext(name).toBe(kind);
      expect(kept.length).toBeGreaterThan(0.5);
      // As browsers ask for it.
      const file = await house.tutor.request('GET', `/files/${kept.file}`, undefined, {
        'accept-encoding': 'gzip, deflate, br',
      });
      expect(file.headers['content-type']).toBe(type);
      expect(file.headers['cache-control']).toContain('private');
      expect(Buffer.compare(file.rawPayload, Buffer.from(bytes))).toBe(0);
    }
  });

  it('is sent in parts, so that it can be played from its middle (RFC 9110, 14)', async () => {
    const bytes = silentWav(60);
    const { file } = (await send(bytes, 'horn.wav')).json<{ file: string }>();
    const part = await house.tutor.request('GET', `/files/${file}`, undefined, {
      range: 'bytes=400000-400999',
    });
    expect(part.statusCode).toBe(206);
    expect(part.headers['content-range']).toBe(`bytes 400000-400999/${bytes.length}`);
    expect(part.rawPayload.length).toBe(1000);
  });

  it('is refused, and not kept, where no browser could play it', async () => {
    const mp4 = Buffer.from(await film('mp4'));
    const old = Buffer.from(mp4.toString('latin1').replaceAll('avc1', 'mp4v'), 'latin1');
    expect(await fault(old)).toBe('media-codec');
    expect(await fault(mp4.subarray(0, 40))).toMatch(/^media-/);
    expect(await fault(Buffer.from('PK\x03\x04 what is this'))).toBe('material-unknown');
    const { file } = (await send(mp4, 'waves.mp4')).json<{ file: string }>();
    expect((await house.app.knownFiles.info(file)).type).toBe('video/mp4');
  });

  it('is named where it is a picture that can’t be taken; AVIF is, and half a JPEG isn’t', async () => {
    const heic = Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic\0\0\0\x08free', 'latin1');
    expect(await fault(heic)).toBe('picture-broken');
    expect(await fault(Buffer.from('II*\0\x08\0\0\0', 'latin1'))).toBe('picture-tiff');
    expect(await fault(Buffer.from([0, 0, 1, 0, 1, 0, 16, 16]))).toBe('picture-ico');
    expect(await fault(gzipSync('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toBe('picture-svgz');
    const canvas = createCanvas(640, 480);
    const context = canvas.getContext('2d');
    for (let i = 0; i < 64; i++) {
      context.fillStyle = `hsl(${i * 6} 60% 50%)`;
      context.fillRect(i * 10, 0, 10, 480 - i);
    }
    const kept = (await send(await canvas.encode('avif'), 'photo.avif')).json<{ file: string }>();
    expect(kept).toEqual(jasmine.objectContaining({ kind: 'picture', width: 640, height: 480 }));
    expect((await house.app.knownFiles.info(kept.file)).type).toBe('image/png');
    const jpeg = await canvas.encode('jpeg');
    expect((await send(jpeg, 'photo.jpg')).statusCode).toBe(201);
    expect(await fault(jpeg.subarray(0, Math.round(jpeg.length * 0.45)))).toBe('picture-broken');
  });

  it('is a photo as telephones take them, made a JPEG without where it was taken (libheif’s heif-enc)', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'cuaderno-heic-'));
    const [png, heic] = [join(folder, 'photo.png'), join(folder, 'photo.heic')];
    const canvas = createCanvas(640, 480);
    const context = canvas.getContext('2d');
    context.fillStyle = '#d02020';
    context.fillRect(0, 0, 320, 480);
    context.fillStyle = '#2040c0';
    context.fillRect(320, 0, 320, 480);
    writeFileSync(png, await canvas.encode('png'));
    execFileSync('heif-enc', ['-q', '90', '-o', heic, png]);
    const photo = readFileSync(heic);
    const kept = (await send(photo, 'IMG_0412.HEIC')).json<{ file: string }>();
    expect(kept).toEqual(jasmine.objectContaining({ kind: 'picture', width: 640, height: 480 }));
    expect((await house.app.knownFiles.info(kept.file)).type).toBe('image/jpeg');
    const image = await loadImage(readFileSync(house.app.files.path(kept.file)));
    context.drawImage(image, 0, 0);
    const colourAt = (x: number): number[] => [...context.getImageData(x, 240, 1, 1).data];
    for (const [x, colour] of [
      [100, [0xd0, 0x20, 0x20]],
      [540, [0x20, 0x40, 0xc0]],
    ] as const)
      colour.forEach((value, i) => expect(Math.abs(colourAt(x)[i]! - value)).toBeLessThan(12));
    // Half of it is named for what it is.
    expect(await fault(photo.subarray(0, photo.length - 300))).toBe('picture-heic');
  });

  it('is there for students while it lies on a page they are shown, and its picture with it', async () => {
    const [{ file }, { file: poster }] = (await Promise.all(
      [await film('webm'), silentWav()].map(async (bytes) =>
        (await send(bytes, 'x')).json<{ file: string }>(),
      ),
    )) as [{ file: string }, { file: string }];
    const { student, page } = await house.lesson();
    const host = await hostOf(house.app.bus, house.board);
    const maren: Actor = { id: newId(), role: 'tutor', trust: 'hands' };
    const seen = async (hash: string): Promise<number> =>
      (await student.get(`/files/${hash}`)).statusCode;
    expect([await seen(file), await seen(poster)]).toEqual([404, 404]);
    const laid = operation({
      kind: 'item.add',
      page,
      item: {
        kind: 'media',
        medium: 'film',
        layer: 'material',
        order: 'a0',
        frame: { x: 10, y: 10, width: 320, height: 180, turn: 0 },
        file,
        poster,
        name: 'waves.webm',
        length: 2,
      },
    });
    await host.applyAs([laid], maren);
    expect([await seen(file), await seen(poster)]).toEqual([200, 200]);
    const remove = operation({ kind: 'items.remove', page, items: [laid.id] });
    await host.applyAs([remove], maren);
    expect([await seen(file), await seen(poster)]).toEqual([404, 404]);
  });
});
