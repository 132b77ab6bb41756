import { packTogether } from '@cuaderno/core';

/** First byte of a frame that holds a whole binary message: FIN and opcode 2 (RFC 6455, 5.2). */
const WHOLE_BINARY = 0x82;
/** Longest payload whose length stands in the second byte; the two values above say how many bytes it takes. */
const SHORT = 125;
const TWO_BYTES = 126;
const EIGHT_BYTES = 127;

/** The last message that was framed: the same bytes go to one window after the other. */
let last: { readonly bytes: Uint8Array; readonly frame: Buffer } | null = null;

/**
 * A whole message as the one frame in which a server sends it, unmasked (RFC 6455, 5.2). It is built once for all
 * windows to which the same bytes go: of the work of a hundred lessons, half was handing headers and bodies to
 * the system one by one.
 *
 * @param bytes not changed any more by the giver
 */
export function framed(bytes: Uint8Array): Buffer {
  if (last?.bytes === bytes) return last.frame;
  const { length } = bytes;
  const head = length <= SHORT ? 2 : length <= 0xffff ? 4 : 10;
  const frame = Buffer.allocUnsafe(head + length);
  frame[0] = WHOLE_BINARY;
  if (head === 2) frame[1] = length;
  else if (head === 4) {
    frame[1] = TWO_BYTES;
    frame.writeUInt16BE(length, 2);
  } else {
    frame[1] = EIGHT_BYTES;
    frame.writeBigUInt64BE(BigInt(length), 2);
  }
  frame.set(bytes, head);
  last = { bytes, frame };
  return frame;
}

/** What was gathered last, and the same as one frame. */
let together: { readonly messages: readonly Uint8Array[]; readonly frame: Buffer } | null = null;

/**
 * Several messages as the one frame in which they go (`packTogether`). Windows of one lesson gather the same ones at
 * the same time, most of all when there is much to do: it is built once for them, too.
 */
export function framedTogether(messages: readonly Uint8Array[]): Buffer {
  const same =
    together?.messages.length === messages.length &&
    together.messages.every((bytes, i) => bytes === messages[i]);
  if (!same) together = { messages, frame: framed(packTogether(messages)) };
  return together!.frame;
}
