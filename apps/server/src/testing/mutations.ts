import { pack } from '@cuaderno/core';

/*
 * Messages as somebody might write them who means harm: honest ones, changed in ways that no browser of ours would.
 * All of it follows from a seed, so that what was found can be found again.
 */

/** Numbers from 0 to 1 that follow from a seed (mulberry32, by Tommy Ettinger; public domain, from memory). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function deep(levels: number): unknown {
  let value: unknown = 1;
  for (let i = 0; i < levels; i++) value = i % 2 ? [value] : { x: value };
  return value;
}

/** What stands in the place of something. */
const ODD: readonly (() => unknown)[] = [
  ...[() => null, () => true, () => '', () => 0, () => -1, () => 1e308, () => NaN, () => Infinity],
  ...[() => [], () => ({}), () => 2 ** 53, () => 'x'.repeat(500), () => '\u0000\u202e', () => -0.5],
  () => ({ toString: 1, valueOf: 1 }),
  () => ({ constructor: { prototype: 1 } }),
  () => deep(30),
  () => Array.from({ length: 300 }, (_, i) => i),
  () => Array.from({ length: 60 }, () => ({})),
  () => new Uint8Array(300).fill(0xff),
  () => new Uint8Array(),
  () => 'AAAAAAAAAAAA',
  () => 'tutor',
  () => 'all',
];

/** A value, changed in one place. */
function changed(value: unknown, random: () => number): unknown {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const odd = (): unknown => pick(ODD)();
  if (Array.isArray(value)) {
    const list = [...(value as unknown[])];
    const at = Math.floor(random() * list.length);
    const how = random();
    if (how < 0.2) list.splice(at, 1);
    else if (how < 0.4) list.push(odd());
    else if (list.length > 0) list[at] = changed(list[at], random);
    return list;
  }
  if (typeof value === 'object' && value !== null && !(value instanceof Uint8Array)) {
    const copy: Record<string, unknown> = { ...value };
    const key = pick(Object.keys(copy));
    const how = random();
    if (key === undefined || how < 0.12) copy[pick(['more', 'by', 'id', 'kind', 'lesson'])] = odd();
    else if (how < 0.24) delete copy[key];
    else copy[key] = changed(copy[key], random);
    return copy;
  }
  if (value instanceof Uint8Array && random() < 0.7) {
    const bytes = Uint8Array.from(value);
    if (bytes.length > 0) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
    return random() < 0.3 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes;
  }
  return odd();
}

/** An honest message, as somebody sends it who means harm: other values, or other bytes. */
export function mutated(message: unknown, random: () => number): Uint8Array | string {
  let value = message;
  for (let times = 1 + Math.floor(random() * 3); times > 0; times--) value = changed(value, random);
  const how = random();
  try {
    if (how < 0.1) return JSON.stringify(value).slice(0, 4000);
    const bytes = Uint8Array.from(pack(how < 0.7 ? value : message));
    if (how < 0.7 || bytes.length === 0) return bytes;
    // Bytes that are changed, cut off, or written twice.
    if (how < 0.85)
      for (let i = 0; i < 3; i++)
        bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
    else if (how < 0.95) return bytes.subarray(0, Math.floor(random() * bytes.length));
    else return Buffer.concat([bytes, bytes]);
    return bytes;
  } catch {
    // What can't be packed can't be sent.
    return pack({ kind: 'ping', n: 1 });
  }
}
