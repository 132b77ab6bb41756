import { BufferSource } from 'mediabunny';
import { film, silentMp3, silentWav, sound } from '../testing/media.js';
import { isMediaHead, MediaError, readMedia } from './index.js';
import type { MediaFacts } from './index.js';

const read = (bytes: Uint8Array): Promise<MediaFacts> => readMedia(new BufferSource(bytes));

async function fault(bytes: Uint8Array): Promise<string> {
  try {
    await read(bytes);
  } catch (error) {
    if (error instanceof MediaError) return error.fault;
    throw error;
  }
  return 'none';
}

/** The same bytes with a word in them put in another's place. */
function with_(bytes: Uint8Array, from: string, to: string): Uint8Array {
  const text = Buffer.from(bytes).toString('latin1').replaceAll(from, to);
  return new Uint8Array(Buffer.from(text, 'latin1'));
}

describe('sounds and films that are brought', () => {
  it('are known by their content', async () => {
    const files: [Uint8Array, MediaFacts['medium'], string, number][] = [
      [silentWav(2), 'sound', 'audio/wav', 2],
      [silentMp3(40), 'sound', 'audio/mpeg', (40 * 1152) / 44_100],
      [await sound('ogg'), 'sound', 'audio/ogg', 2],
      [await sound('m4a'), 'sound', 'audio/mp4', 2],
      [await film('webm'), 'film', 'video/webm', 2],
      [await film('mp4'), 'film', 'video/mp4', 2],
    ];
    for (const [bytes, medium, type, length] of files) {
      expect(isMediaHead(bytes.subarray(0, 16)))
        .withContext(type)
        .toBeTrue();
      const facts = await read(bytes);
      expect(facts).withContext(type).toEqual(jasmine.objectContaining({ medium, type }));
      expect(facts.length).withContext(type).toBeCloseTo(length, 1);
      if (medium === 'film') expect([facts.width, facts.height]).toEqual([320, 180]);
    }
  });

  it('are not pictures, PDFs or archives', () => {
    for (const head of [
      '\x89PNG\r\n\x1a\n',
      '%PDF-1.7',
      'PK\x03\x04',
      '<svg xmlns',
      'GIF89a',
      'BM',
    ])
      expect(isMediaHead(Buffer.from(head.padEnd(16, ' '), 'latin1')))
        .withContext(head)
        .toBeFalse();
    // JPEG begins with a marker that isn't a frame of sound.
    expect(isMediaHead(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0]))).toBeFalse();
  });

  it('are refused where browsers can’t read how they are coded', async () => {
    expect(await fault(with_(await film('mp4'), 'avc1', 'mp4v'))).toBe('codec');
    expect(await fault(with_(await film('webm'), 'V_VP8', 'V_XYZ'))).toBe('codec');
    // ADPCM, as dictaphones write it: format tags 0x0011 and 0x0002 (RFC 2361, A.4 and A.1).
    for (const tag of [0x11, 2]) {
      const adpcm = Uint8Array.from(silentWav());
      new DataView(adpcm.buffer).setUint16(20, tag, true);
      expect(await fault(adpcm)).toBe('codec');
    }
  });

  it('are refused where they are cut off, empty or something else', async () => {
    const whole = await film('mp4');
    expect(['broken', 'unknown', 'codec']).toContain(await fault(whole.subarray(0, 60)));
    expect(await fault(new Uint8Array(0))).toBe('unknown');
    expect(await fault(Buffer.from('%PDF-1.7 and so on'))).toBe('unknown');
    expect(await fault(silentWav().subarray(0, 44))).toBe('broken');
  });
});
