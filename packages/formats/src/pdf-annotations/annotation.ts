import type { PdfRect } from '@cuaderno/core';

/** Kinds of annotations that are read; all but those of lines at words are written, too (ISO 32000-1, table 169). */
export const KINDS = [
  'Ink',
  'Highlight',
  'Underline',
  'StrikeOut',
  'Squiggly',
  'FreeText',
  'Square',
  'Circle',
  'Line',
  'PolyLine',
  'Polygon',
  'Stamp',
] as const;
export type AnnotationKind = (typeof KINDS)[number];

/** Red, green and blue, each from 0 to 1. */
export type AnnotationColour = readonly [number, number, number];

/**
 * What a PDF says of an annotation in words that every program knows, in the page's user space. Numbers are
 * rounded as they are written.
 */
export interface Annotation {
  readonly kind: AnnotationKind;
  readonly rect: PdfRect;
  readonly contents: string;
  /** Of the line; of the ground, for text. */
  readonly colour: AnnotationColour | null;
  readonly interior: AnnotationColour | null;
  /** Of the line, in units of user space; 0 for none. */
  readonly width: number;
  readonly dashed: boolean;
  /** By how much what is drawn lies within `rect` on each side. */
  readonly inset: number;
  /** Runs of `x, y`: lines of ink; else one run, of a line's ends, of corners, or of four for each quad. */
  readonly runs: readonly (readonly number[])[];
  /** How a line ends (table 176). */
  readonly endings: readonly [string, string] | null;
  /** How words are set. */
  readonly words: Words | null;
}

export interface Words {
  readonly size: number;
  readonly colour: AnnotationColour;
  /** 0 left, 1 in the middle, 2 right (table 174). */
  readonly align: 0 | 1 | 2;
}

/** Two digits after the point: a hundredth of a point is finer than any screen. */
export function round(n: number): number {
  return Math.round(n * 100) / 100;
}

export function rgbOf(colour: string): AnnotationColour {
  return [1, 3, 5].map(
    (i) => Math.round((parseInt(colour.slice(i, i + 2), 16) / 255) * 1000) / 1000,
  ) as unknown as AnnotationColour;
}

export function hexOf(rgb: AnnotationColour): string {
  const part = (n: number): string =>
    Math.round(Math.min(1, Math.max(0, n)) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${rgb.map(part).join('')}`;
}

/**
 * A number that changes with anything that other programs may change of it (FNV-1a, 32 bits; Fowler, Noll and
 * Vo, RFC 9923). What we wrote besides is only believed while this is what it was.
 */
export function sealOf(annotation: Annotation, place: readonly number[]): number {
  let hash = 0x811c9dc5;
  const mix = (n: number): void => {
    hash = Math.imul(hash ^ (n & 0xffff), 0x01000193);
    hash = Math.imul(hash ^ (n >>> 16), 0x01000193);
  };
  const number = (n: number): void => mix(Math.round(n * 100) | 0);
  const text = (words: string): void => {
    mix(words.length);
    for (let i = 0; i < words.length; i++) mix(words.charCodeAt(i));
  };
  const { kind, rect, contents, colour, interior, width, dashed, runs, endings, words } =
    annotation;
  text(kind);
  for (const n of place) number(n);
  for (const n of rect) number(n);
  text(contents);
  for (const rgb of [colour, interior, words?.colour]) text(rgb ? hexOf(rgb) : '-');
  number(width);
  mix(dashed ? 1 : 0);
  for (const run of runs) {
    mix(run.length);
    for (const n of run) number(n);
  }
  for (const ending of endings ?? []) text(ending);
  if (words) {
    number(words.size);
    mix(words.align);
  }
  return hash >>> 0;
}
