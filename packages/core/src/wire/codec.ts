import { decode, encode } from '@msgpack/msgpack';
import { joinPieces, PIECE_MARK, packPiece, packPieceOf, unpackPieceOf } from './live-piece.js';
import { ClientMessage } from './messages.js';
import type { ServerMessage } from './messages.js';

/*
 * Messages travel as MessagePack, because ink is bytes and JSON has none. What may be in them is
 * said once, in `messages.ts`; this file knows nothing of it. Only the pieces of strokes, sixty a second
 * and writer, travel in a shorter form: see `live-piece.ts`. Where several people write, the server sends
 * what all of them tell within a few milliseconds as one: an array of messages, each as it travels alone.
 */

/** Bytes in a piece of a stroke at most. */
const MAX_PIECE_BYTES = 20_000;

/** Thrown for a message that is not one; `reason` says why, for whoever writes a client. */
export class MessageError extends Error {
  override readonly name = 'MessageError';
  constructor(
    readonly reason: 'not-readable' | 'wrong-shape',
    detail: string,
  ) {
    super(detail);
  }
}

export function pack(value: unknown): Uint8Array {
  return encode(value, { ignoreUndefined: true });
}

/** Throws `MessageError` where `bytes` is not MessagePack. */
export function unpack(bytes: Uint8Array): unknown {
  try {
    return decode(bytes);
  } catch (error) {
    throw new MessageError('not-readable', error instanceof Error ? error.message : String(error));
  }
}

/** A message as it travels. */
export function packMessage(message: ClientMessage | ServerMessage): Uint8Array {
  if (message.kind !== 'live.more') return pack(message);
  return 'n' in message ? packPieceOf(message.n, message.piece) : packPiece(message.piece);
}

/**
 * A browser's message, checked. JSON text is understood too, for messages without ink.
 * Throws `MessageError` for anything else.
 */
export function readClientMessage(data: Uint8Array | string): ClientMessage {
  if (typeof data !== 'string' && data[0] === PIECE_MARK) {
    if (data.length < 4 || data.length > MAX_PIECE_BYTES)
      throw new MessageError('wrong-shape', 'a piece has a point at least, and not thousands');
    return { kind: 'live.more', piece: data.subarray(1) };
  }
  const result = ClientMessage.safeParse(typeof data === 'string' ? parse(data) : unpack(data));
  if (result.success) return result.data;
  const issue = result.error.issues[0];
  const where = issue?.path.join('.') || 'the message';
  throw new MessageError('wrong-shape', `${where}: ${issue?.message ?? 'not as expected'}`);
}

/**
 * Several of the server's messages, packed each by itself, as one that is sent. Pieces of one stroke with
 * nothing but pieces between them become one piece.
 */
export function packTogether(messages: readonly Uint8Array[]): Uint8Array {
  const together: Uint8Array[] = [];
  /** Where in `together` the last piece of a stroke stands, by the stroke's number. */
  const pieces = new Map<number, number>();
  for (const message of messages) {
    if (message[0] !== PIECE_MARK) {
      // A number may stand for another stroke from here on.
      pieces.clear();
      together.push(message);
      continue;
    }
    const { n, piece } = unpackPieceOf(message);
    const at = pieces.get(n);
    if (at === undefined) pieces.set(n, together.push(message) - 1);
    else together[at] = packPieceOf(n, joinPieces(unpackPieceOf(together[at]!).piece, piece));
  }
  return together.length === 1 ? together[0]! : pack(together);
}

/** The server's messages, one or several. They are trusted: what they hold was checked when it came in. */
export function readServerMessages(data: Uint8Array): ServerMessage[] {
  if (data[0] === PIECE_MARK) return [{ kind: 'live.more', ...unpackPieceOf(data) }];
  const read = unpack(data) as ServerMessage | Uint8Array[];
  return Array.isArray(read) ? read.flatMap(readServerMessages) : [read];
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new MessageError('not-readable', 'neither MessagePack nor JSON');
  }
}
