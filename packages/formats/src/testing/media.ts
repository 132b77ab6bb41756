import {
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacket,
  EncodedVideoPacketSource,
  Mp4OutputFormat,
  OggOutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny';
import type { OutputFormat } from 'mediabunny';

/** A second of silence, 8,000 samples of 8 bits, as RIFF WAVE. */
export function silentWav(seconds = 1): Uint8Array {
  const count = 8000 * seconds;
  const bytes = new Uint8Array(44 + count).fill(128);
  const view = new DataView(bytes.buffer);
  const text = (at: number, words: string): void =>
    [...words].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, 8000, true);
  view.setUint32(28, 8000, true);
  view.setUint16(32, 1, true);
  view.setUint16(34, 8, true);
  text(36, 'data');
  view.setUint32(40, count, true);
  return bytes;
}

/** So many frames of MPEG-1 layer III, 128 kbit/s at 44,100 Hz: 1,152 samples each. */
export function silentMp3(frames = 40): Uint8Array {
  const bytes = new Uint8Array(417 * frames);
  for (let i = 0; i < frames; i++) bytes.set([0xff, 0xfb, 0x90, 0x64], i * 417);
  return bytes;
}

const AVC_HEAD = Uint8Array.from([
  1, 0x42, 0xc0, 0x1e, 0xff, 0xe1, 0, 9, 0x67, 0x42, 0xc0, 0x1e, 0xda, 0x05, 0x07, 0xe8, 0x40, 1, 0,
  4, 0x68, 0xce, 0x3c, 0x80,
]);

/** The identification header of one channel at 48,000 Hz (RFC 7845, 5.1). */
const OPUS_HEAD = Uint8Array.from([
  ...new TextEncoder().encode('OpusHead'),
  ...[1, 1, 0, 0, 0x80, 0xbb, 0, 0, 0, 0, 0],
]);

/** A film of two seconds whose pictures nobody can see: only its wrapping is true. */
export async function film(kind: 'webm' | 'mp4'): Promise<Uint8Array> {
  const source = new EncodedVideoPacketSource(kind === 'webm' ? 'vp8' : 'avc');
  const decoderConfig =
    kind === 'webm'
      ? { codec: 'vp8', codedWidth: 320, codedHeight: 180 }
      : { codec: 'avc1.42c01e', codedWidth: 320, codedHeight: 180, description: AVC_HEAD };
  return written(
    kind === 'webm' ? new WebMOutputFormat() : new Mp4OutputFormat(),
    async (output) => {
      output.addVideoTrack(source, { frameRate: 10 });
      await output.start();
      for (let i = 0; i < 20; i++)
        await source.add(new EncodedPacket(vp8Frame(), 'key', i / 10, 1 / 10), { decoderConfig });
    },
  );
}

/** A sound of two seconds, of which only the wrapping is true. */
export async function sound(kind: 'ogg' | 'm4a'): Promise<Uint8Array> {
  const codec = kind === 'ogg' ? 'opus' : 'aac';
  const source = new EncodedAudioPacketSource(codec);
  const decoderConfig = {
    codec: kind === 'ogg' ? 'opus' : 'mp4a.40.2',
    sampleRate: 48_000,
    numberOfChannels: 1,
    description: kind === 'ogg' ? OPUS_HEAD : Uint8Array.from([0x11, 0x88]),
  };
  return written(kind === 'ogg' ? new OggOutputFormat() : new Mp4OutputFormat(), async (output) => {
    output.addAudioTrack(source);
    await output.start();
    for (let i = 0; i < 100; i++)
      await source.add(
        new EncodedPacket(Uint8Array.from([0xf8, 0xff, 0xfe]), 'key', i / 50, 1 / 50),
        {
          decoderConfig,
        },
      );
  });
}

/** The head of a VP8 key frame of 320 × 180 (RFC 6386, 9.1), and nothing after it. */
function vp8Frame(): Uint8Array {
  return Uint8Array.from([0x10, 0, 0, 0x9d, 0x01, 0x2a, 0x40, 0x01, 0xb4, 0x00, 0, 0, 0, 0]);
}

async function written(
  format: OutputFormat,
  fill: (output: Output) => Promise<void>,
): Promise<Uint8Array> {
  const target = new BufferTarget();
  const output = new Output({ format, target });
  await fill(output);
  await output.finalize();
  return new Uint8Array(target.buffer!);
}
