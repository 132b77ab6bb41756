import { tokensOf } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { Query } from '../database/index.js';
import type { Found } from '@cuaderno/contract/records';

/** Words of one page, one message or one note of a record. */
export interface RecordWords {
  readonly lesson: Id;
  readonly source: Found['source'];
  readonly page: Id | null;
  /** Of the page, from 1. */
  readonly number: number | null;
  readonly said: string;
}

/** Adds words by which a record is found; the first parameter is empty where there are none. */
export function wordRow({ lesson, source, page, number, said }: RecordWords): Query {
  return {
    sql: 'INSERT INTO record_words (tokens, lesson, source, page, number, said) VALUES (?, ?, ?, ?, ?, ?)',
    params: [tokensOf(said).join(' '), lesson, source, page, number, said],
  };
}

/** Takes out the words of a record that come from these places. */
export function forget(lesson: Id, sources: readonly Found['source'][]): Query {
  return {
    sql: `DELETE FROM record_words WHERE lesson = ? AND source IN (${sources.map(() => '?').join(',')})`,
    params: [lesson, ...sources],
  };
}
