import { OPERATION_LIMITS } from '../features/board/index.js';
import type { ReadLimits } from '../features/index.js';
import type { Role } from '../permissions/index.js';
import { PackedCursor } from './packed-value.js';

/** Bytes in a message of JSON text at most: what has bytes or many words in it travels as MessagePack. */
export const MAX_TEXT_BYTES = 4_000;

/** What any message of these people may cost, before it is known of what kind it is. */
export function mostOf(role: Role): ReadLimits {
  return OPERATION_LIMITS[role];
}

/**
 * Splits operations into messages that are within the limits of the one who sends them, in their order. One that is
 * beyond them by itself has a message of its own: the server says what is wrong with it.
 */
export function inMessages<Op>(
  ops: readonly Op[],
  most: number,
  packOne: (op: Op) => Uint8Array,
): Op[][] {
  const messages: Op[][] = [];
  let [bytes, values, text] = [0, 0, 0];
  for (const op of ops) {
    const packed = packOne(op);
    const cost = costOf(packed);
    const last = messages.at(-1);
    const fits =
      last !== undefined &&
      last.length < most &&
      bytes + packed.length <= FULL.bytes &&
      values + cost.values <= FULL.values &&
      text + cost.text <= FULL.text;
    if (fits) last.push(op);
    else {
      messages.push([op]);
      bytes = values = text = 0;
    }
    bytes += packed.length;
    values += cost.values;
    text += cost.text;
  }
  return messages;
}

/** How full a message is made where there is more to send: others' words pass between two of them. */
const FULL: ReadLimits = { bytes: 200_000, values: 1_200, text: 40_000, depth: Infinity };

function costOf(packed: Uint8Array): { values: number; text: number } {
  const cursor = new PackedCursor(packed);
  const cost = { values: 0, text: 0 };
  while (cursor.at < packed.length && cursor.head()) {
    cost.values++;
    if (cursor.type === 'text') cost.text += cursor.count;
    if (cursor.type === 'list' || cursor.type === 'map') continue;
    cursor.passContent();
  }
  return cost;
}

/** Heads that are looked at to find one field: more than any message of ours has. */
const LOOKED_AT = 8_000;
/** Longest name of a kind, in bytes. */
const LONGEST_KIND = 20;

/** Of what kind a packed message says it is, without building it; `null` where it doesn't say. */
export function packedKind(bytes: Uint8Array): string | null {
  return packedText(bytes, 'kind', LONGEST_KIND);
}

/** Which board a packed message says it is about, without building it; `null` where it doesn't say. */
export function packedBoard(bytes: Uint8Array): string | null {
  return packedText(bytes, 'board', 12);
}

function packedText(bytes: Uint8Array, field: string, longest: number): string | null {
  const cursor = new PackedCursor(bytes, LOOKED_AT);
  return enter(cursor, field) && cursor.headOf('text') ? cursor.text(longest) : null;
}

/**
 * Ids of the operations in a packed message of them, without building it: who may write nothing is told so of each.
 * Ids that aren't ones are left out.
 */
export function packedOperationIds(bytes: Uint8Array, most: number): string[] {
  const ids: string[] = [];
  const cursor = new PackedCursor(bytes, LOOKED_AT);
  if (!enter(cursor, 'ops') || !cursor.headOf('list')) return ids;
  const count = Math.min(cursor.count, most);
  for (let i = 0; i < count; i++) {
    const inside = new PackedCursor(bytes, LOOKED_AT);
    inside.at = cursor.at;
    if (enter(inside, 'id') && inside.headOf('text')) {
      const id = inside.text(12);
      if (id && /^[A-Za-z0-9_-]{12}$/.test(id)) ids.push(id);
    }
    if (!cursor.pass()) break;
  }
  return ids;
}

/** Moves to the value of a field, where the cursor is at a map that has it. */
function enter(cursor: PackedCursor, field: string): boolean {
  if (!cursor.headOf('map')) return false;
  for (let entries = cursor.count; entries > 0; entries--) {
    if (!cursor.headOf('text')) return false;
    const found = cursor.isText(field);
    if (!cursor.passContent()) return false;
    if (found) return true;
    if (!cursor.pass()) return false;
  }
  return false;
}

/** What one row of a log may cost when it is read again: no more is built than its bytes are there for. */
export const ROW_LIMITS: ReadLimits = {
  bytes: Infinity,
  values: Infinity,
  text: Infinity,
  depth: 24,
};
