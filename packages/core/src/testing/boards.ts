import { A4 } from '../board/index.js';
import type { PageSpec } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { encodeStroke } from '../ink/index.js';
import type { MarkSpec } from '../kinds/index.js';
import { operation } from '../ops/index.js';
import type { Operation } from '../ops/index.js';
import { keysBetween } from '../order/index.js';
import type { Actor } from '../permissions/index.js';
import { handwriting } from './handwriting.js';

export function somePages(count: number): PageSpec[] {
  return keysBetween(null, null, count).map((order, i) => ({
    id: newId(),
    order,
    name: `Page ${i + 1}`,
    ...A4,
    paper: { kind: 'plain' },
  }));
}

export function addPages(pages: PageSpec[]): Operation {
  return operation({ kind: 'pages.add', pages });
}

export function addInk(page: Id, seed = 1): Operation {
  return operation({ kind: 'ink.add', page, ink: encodeStroke(handwriting(seed, { count: 4 })) });
}

/** A tick, or another mark like it. */
export function addMark(page: Id, change: Partial<MarkSpec> = {}): Operation {
  const item: MarkSpec = {
    kind: 'mark',
    mark: 'tick',
    colour: '#c22f2f',
    frame: { x: 100, y: 120, width: 40, height: 40, turn: 0 },
    order: 'a0',
    layer: 'material',
    ...change,
  };
  return operation({ kind: 'item.add', page, item });
}

export function tutor(id = newId()): Actor {
  return { id, role: 'tutor', trust: 'hands' };
}

export function student(trust: Actor['trust'] = 'write', id = newId()): Actor {
  return { id, role: 'student', trust };
}
