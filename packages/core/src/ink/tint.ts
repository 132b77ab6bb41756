import { contrast } from './contrast.js';
import { INKS } from './palette.js';

/*
 * A tint is laid over the whole paper by multiplying. Some readers need one; everyone must still be
 * able to read ink on it: each ink keeps 3:1, as lines and signs need (WCAG 2.2, 1.4.11), and black
 * keeps 7:1, as text that is easy to read does (1.4.6).
 */

const INK_LIMIT = 3;
const TEXT_LIMIT = 7;

/** Tints that are offered. */
export const TINTS = [
  { name: 'cream', label: 'Cream', colour: '#fdf6e0' },
  { name: 'straw', label: 'Straw', colour: '#fbf0b8' },
  { name: 'peach', label: 'Peach', colour: '#fde3d2' },
  { name: 'petal', label: 'Petal', colour: '#fbe0ea' },
  { name: 'lilac', label: 'Lilac', colour: '#ebe3f8' },
  { name: 'mist', label: 'Mist', colour: '#deebf7' },
  { name: 'reed', label: 'Reed', colour: '#dff2e1' },
  { name: 'stone', label: 'Stone', colour: '#ececea' },
] as const;

/** Whether all inks, and black, can be read on it. Throws `RangeError` if it isn't `#rrggbb`. */
export function isReadableTint(colour: string): boolean {
  return (
    contrast('#000000', colour) >= TEXT_LIMIT &&
    INKS.every((ink) => contrast(ink.colour, colour) >= INK_LIMIT)
  );
}

/** This colour, or the nearest one between it and white that can be written on. */
export function readableTint(colour: string): string {
  const parts = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16));
  for (let white = 0; white < 1; white += 0.02) {
    const mixed = parts.map((part) => Math.round(part + (255 - part) * white));
    const tint = `#${mixed.map((part) => part.toString(16).padStart(2, '0')).join('')}`;
    if (isReadableTint(tint)) return tint;
  }
  return '#ffffff';
}
