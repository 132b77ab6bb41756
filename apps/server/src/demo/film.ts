import { createCanvas } from '@napi-rs/canvas';
import type { SKRSContext2D } from '@napi-rs/canvas';
import {
  BufferTarget,
  EncodedPacket,
  EncodedVideoPacketSource,
  Output,
  WebMOutputFormat,
} from 'mediabunny';

const WIDTH = 480;
const HEIGHT = 360;
const FRAMES_A_SECOND = 12;
const SECONDS = 8;

/** The Bear and the star it turns round, in parts of the picture's height from the middle; by eye. */
const STARS: readonly (readonly [x: number, y: number, size: number])[] = [
  [0, 0, 3],
  [0.3, -0.06, 3],
  [0.33, 0.08, 3],
  [0.22, 0.13, 2.4],
  [0.19, 0.02, 2.2],
  [0.11, 0.09, 2.4],
  [0.04, 0.14, 2.6],
  [-0.05, 0.21, 2.6],
];

interface Film {
  readonly film: Uint8Array;
  /** A picture of it, PNG. */
  readonly poster: Uint8Array;
  readonly seconds: number;
}

/**
 * A film of the sky turning round the pole, drawn here. Each picture is coded as WebP, which is a
 * key frame of VP8 in another wrapping (RFC 9649, 2.5), and wrapped as WebM.
 */
export async function turningSky(): Promise<Film> {
  const canvas = createCanvas(WIDTH, HEIGHT);
  const context = canvas.getContext('2d');
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new EncodedVideoPacketSource('vp8');
  output.addVideoTrack(source, { frameRate: FRAMES_A_SECOND });
  await output.start();
  const count = SECONDS * FRAMES_A_SECOND;
  let poster: Uint8Array | null = null;
  for (let i = 0; i < count; i++) {
    draw(context, i / count);
    if (i === FRAMES_A_SECOND) poster = canvas.toBuffer('image/png');
    const frame = vp8Of(await canvas.encode('webp', 70));
    const duration = 1 / FRAMES_A_SECOND;
    await source.add(new EncodedPacket(frame, 'key', i * duration, duration), {
      decoderConfig: { codec: 'vp8', codedWidth: WIDTH, codedHeight: HEIGHT },
    });
  }
  await output.finalize();
  return { film: new Uint8Array(target.buffer!), poster: poster!, seconds: SECONDS };
}

/** @param part of a day, from 0 to 1 */
function draw(context: SKRSContext2D, part: number): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  const sky = context.createLinearGradient(0, 0, 0, HEIGHT);
  sky.addColorStop(0, '#0b1d3a');
  sky.addColorStop(1, '#2f4f7d');
  context.fillStyle = sky;
  context.fillRect(0, 0, WIDTH, HEIGHT);
  context.save();
  context.translate(WIDTH / 2, HEIGHT * 0.42);
  // Seen from the north of the earth, it turns against the clock.
  context.rotate(-part * Math.PI);
  context.fillStyle = '#ffffff';
  for (const [x, y, size] of STARS) disc(context, x * HEIGHT, y * HEIGHT, size);
  context.fillStyle = '#b9c8e4';
  for (let i = 0; i < 90; i++) {
    const far = HEIGHT * (0.1 + ((i * 61) % 97) / 110);
    const angle = (i * 137.5 * Math.PI) / 180;
    disc(context, far * Math.cos(angle), far * Math.sin(angle), 0.7 + (i % 3) * 0.4);
  }
  context.restore();
  context.fillStyle = '#101c24';
  context.beginPath();
  context.moveTo(0, HEIGHT);
  for (const [x, y] of [
    [0, 300],
    [110, 270],
    [220, 310],
    [340, 280],
    [480, 305],
  ] as const)
    context.lineTo(x, y);
  context.lineTo(WIDTH, HEIGHT);
  context.fill();
}

function disc(context: SKRSContext2D, x: number, y: number, radius: number): void {
  context.beginPath();
  context.arc(x, y, radius, 0, 2 * Math.PI);
  context.fill();
}

/** The key frame in a WebP file: the content of its `VP8 ` chunk. */
function vp8Of(webp: Uint8Array): Uint8Array {
  const view = new DataView(webp.buffer, webp.byteOffset, webp.byteLength);
  for (let at = 12; at + 8 <= webp.length;) {
    const name = String.fromCharCode(...webp.subarray(at, at + 4));
    const size = view.getUint32(at + 4, true);
    if (name === 'VP8 ') return webp.slice(at + 8, at + 8 + size);
    at += 8 + size + (size % 2);
  }
  throw new Error('This WebP holds no VP8.');
}
