import {
  CLIENT_SCHEMAS,
  ClientMessage,
  MessageError,
  readPiece,
  unpackMessage,
} from '@cuaderno/core';
import type { Role } from '@cuaderno/core';
import { checksByKind, fitOperations, kindOf } from '../boards/operation-check.js';

/*
 * Messages are read in three steps, each cheaper than what it keeps from the next: what they hold is looked at before it
 * is built (`unpackMessage`); what was built is compared with the schema until the first thing that isn't as it should be;
 * only then does Zod read it. Pieces of strokes under way are but bytes, and are what they are by their first one.
 */

const fits = checksByKind(CLIENT_SCHEMAS.filter((schema) => !('ops' in schema.shape)));

/** A browser's message, checked. Throws `MessageError` for what is none. */
export function readMessage(data: Uint8Array | string, role: Role): ClientMessage {
  const piece = readPiece(data);
  if (piece) return piece;
  const value = unpackMessage(data, role);
  const may =
    kindOf(value) === 'ops' ? fitOperations((value as { ops?: unknown }).ops) : fits(value);
  const read = may ? ClientMessage.safeParse(value) : null;
  if (!read?.success) throw new MessageError('wrong-shape', 'no message is like that');
  return read.data;
}
