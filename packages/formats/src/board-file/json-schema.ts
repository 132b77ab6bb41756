import * as z from 'zod';
import { BoardJson } from './shape.js';

/** The shape of `board.json` as JSON Schema (draft 2020-12), made from what reads it. */
export function boardJsonSchema(): object {
  const schema = z.toJSONSchema(BoardJson, { target: 'draft-2020-12', io: 'input' });
  return { title: 'board.json of a board file', ...schema };
}
