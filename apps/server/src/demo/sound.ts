/** Samples a second. */
const RATE = 22_050;
/** Strings of a cello in Hz, from C2 to A3: equal temperament, A4 = 440 Hz (ISO 16). */
const STRINGS = [65.406, 97.999, 146.832, 220] as const;
/** How long each sounds, in seconds. */
const EACH = 2;

interface Sound {
  /** A WAV file. */
  readonly wav: Uint8Array;
  readonly seconds: number;
  /** How loud it is along its length, from 0 to 1. */
  readonly peaks: number[];
}

/** The four open strings of a cello, one after the other: made of sines, to tune by. */
export function openStrings(): Sound {
  return soundOf(STRINGS.length * EACH, (t) => {
    const string = STRINGS[Math.floor(t / EACH)]!;
    const within = t % EACH;
    const swell = Math.min(1, within / 0.15) * Math.min(1, (EACH - within) / 0.5);
    let value = 0;
    for (let n = 1; n <= 8; n++) value += Math.sin(2 * Math.PI * string * n * t) / n ** 1.3;
    return value * swell * 0.25;
  });
}

/** Five short tones and a long one, the last beginning with the hour: to set a watch by. */
export function hourSignal(): Sound {
  return soundOf(6, (t) => {
    const within = t % 1;
    const long = t >= 5 ? 0.5 : 0.1;
    const swell = Math.min(1, within / 0.005) * Math.min(1, Math.max(0, long - within) / 0.005);
    return Math.sin(2 * Math.PI * 1000 * t) * swell * 0.5;
  });
}

/** @param at how far the air is moved at a time in seconds, from -1 to 1 */
function soundOf(seconds: number, at: (t: number) => number): Sound {
  const samples = Float32Array.from({ length: seconds * RATE }, (_, i) => at(i / RATE));
  const part = samples.length / 80;
  const loud = Array.from({ length: 80 }, (_, i) =>
    samples.subarray(i * part, (i + 1) * part).reduce((most, s) => Math.max(most, Math.abs(s)), 0),
  );
  const most = Math.max(...loud);
  const peaks = loud.map((peak) => Math.round((peak / most) * 100) / 100);
  return { wav: wav(samples), seconds, peaks };
}

/** One channel of 16 bits, as RIFF WAVE. */
function wav(samples: Float32Array): Uint8Array {
  const bytes = new Uint8Array(44 + samples.length * 2);
  const view = new DataView(bytes.buffer);
  const text = (at: number, words: string): void =>
    [...words].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, RATE, true);
  view.setUint32(28, RATE * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, samples.length * 2, true);
  samples.forEach((s, i) => view.setInt16(44 + i * 2, Math.max(-1, Math.min(1, s)) * 32_767, true));
  return bytes;
}
