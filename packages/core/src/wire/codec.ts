import { decode, encode } from '@msgpack/msgpack';
import { joinPieces, PIECE_MARK, packPiece, packPieceOf, unpackPieceOf } from './live-piece.js';
import { ClientMessage, limitsOf } from '../features/index.js';
import type { ReadLimits, ServerMessage } from '../features/index.js';
import { MAX_TEXT_BYTES, mostOf, packedKind, ROW_LIMITS } from './message-limits.js';
import type { Role } from '../permissions/index.js';
import { faultOf } from './packed-value.js';

/*
 * Messages travel as MessagePack, because ink is bytes and JSON has none. What may be in them is
 * said once, by the features; this file knows nothing of it. Only the pieces of strokes, sixty a second
 * and writer, travel in a shorter form: see `live-piece.ts`. Where several people write, the server sends
 * what all of them tell within a few milliseconds as one: an array of messages, each as it travels alone.
 */

/** Bytes in a piece of a stroke at most. */
const MAX_PIECE_BYTES = 20_000;

/** Thrown for a message that is not one; `reason` says why, for anyone who writes a client. */
export class MessageError extends Error {
  override readonly name = 'MessageError';
  constructor(
    readonly reason: 'not-readable' | 'wrong-shape' | 'too-large',
    detail: string,
  ) {
    super(detail);
  }
}

export function pack(value: unknown): Uint8Array {
  return encode(value, { ignoreUndefined: true });
}

/**
 * What these bytes hold. What that costs is looked at first: see `faultOf`.
 * Throws `MessageError` where they are not MessagePack as we write it, or hold more than `limits` allow.
 */
export function unpack(bytes: Uint8Array, limits: ReadLimits = ROW_LIMITS): unknown {
  const fault = faultOf(bytes, limits);
  if (fault) throw new MessageError(fault, 'these bytes are no message of ours');
  return built(bytes);
}

function built(bytes: Uint8Array): unknown {
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
 * The next points of a stroke, where that is what these bytes are: sixty a second and writer, so they are read without
 * building anything that would have to be checked. Throws `MessageError` for a piece that has no point, or too many.
 */
export function readPiece(
  data: Uint8Array | string,
): Extract<ClientMessage, { kind: 'live.more' }> | null {
  if (typeof data === 'string' || data[0] !== PIECE_MARK) return null;
  if (data.length < 4 || data.length > MAX_PIECE_BYTES)
    throw new MessageError('wrong-shape', 'a piece has a point at least, and not thousands');
  return { kind: 'live.more', piece: data.subarray(1) };
}

/**
 * A browser's message as it was built, within the limits of its kind, and not checked yet. JSON text is
 * understood too, for short messages without ink. Throws `MessageError` for anything else.
 */
export function unpackMessage(data: Uint8Array | string, role: Role): unknown {
  if (typeof data === 'string') return parse(data);
  const piece = readPiece(data);
  if (piece) return piece;
  const most = mostOf(role);
  const fault = faultOf(data, most);
  if (fault) throw new MessageError(fault, 'not MessagePack, or more than any message holds');
  const limits = limitsOf(packedKind(data) ?? '', role);
  if (!limits) throw new MessageError('wrong-shape', 'kind: there is no such kind of message');
  return limits === most ? built(data) : unpack(data, limits);
}

/** A browser's message, checked. Throws `MessageError` for what is none. */
export function readClientMessage(data: Uint8Array | string, role: Role = 'tutor'): ClientMessage {
  const result = ClientMessage.safeParse(unpackMessage(data, role));
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
  /** Pieces that become one: the stroke's number, and where in `together` they go. */
  const strokes = new Map<number, { readonly at: number; readonly pieces: Uint8Array[] }>();
  const join = (): void => {
    for (const [n, { at, pieces }] of strokes) together[at] = packPieceOf(n, joinPieces(pieces));
    // A number may stand for another stroke from here on.
    strokes.clear();
  };
  for (const message of messages) {
    if (message[0] !== PIECE_MARK) {
      join();
      together.push(message);
      continue;
    }
    const { n, piece } = unpackPieceOf(message);
    const stroke = strokes.get(n);
    if (stroke) stroke.pieces.push(piece);
    else strokes.set(n, { at: together.push(message) - 1, pieces: [piece] });
  }
  join();
  return together.length === 1 ? together[0]! : pack(together);
}

/** The server's messages, one or several. They are trusted: what they hold was checked when it came in. */
export function readServerMessages(data: Uint8Array): ServerMessage[] {
  if (data[0] === PIECE_MARK) return [{ kind: 'live.more', ...unpackPieceOf(data) }];
  const read = built(data) as ServerMessage | Uint8Array[];
  return Array.isArray(read) ? read.flatMap(readServerMessages) : [read];
}

function parse(text: string): unknown {
  if (text.length > MAX_TEXT_BYTES)
    throw new MessageError('too-large', `JSON text has at most ${MAX_TEXT_BYTES} characters`);
  try {
    return JSON.parse(text);
  } catch {
    throw new MessageError('not-readable', 'neither MessagePack nor JSON');
  }
}
