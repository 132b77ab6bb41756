import type { IconNode } from 'lucide';

/* What a touch does on a number line: drawn as it will be, on a piece of one. */

const LINE = ['path', { d: 'M2 16h20M6 13v6M18 13v6' }] as const;
const filled = (cx: number): IconNode[number] => [
  'circle',
  { cx, cy: 16, r: 3, fill: 'currentColor' },
];
const open = (cx: number): IconNode[number] => ['circle', { cx, cy: 16, r: 3 }];

export const POINT: IconNode = [['path', { d: 'M2 16h20M5 13v6M19 13v6' }], filled(12)];
export const OPEN_POINT: IconNode = [['path', { d: 'M2 16h7M15 16h7M5 13v6M19 13v6' }], open(12)];
export const JUMP: IconNode = [
  [...LINE],
  ['path', { d: 'M6 10C8 3 16 3 18 9M18 9l-3.5-.8M18 9l1.6-3.2' }],
];
export const INTERVAL: IconNode = [
  ['path', { d: 'M2 16h20' }],
  ['path', { d: 'M6 16h12', 'stroke-width': 4 }],
  filled(6),
  filled(18),
];
export const OPEN_INTERVAL: IconNode = [
  ['path', { d: 'M2 16h1M21 16h1' }],
  ['path', { d: 'M9 16h6', 'stroke-width': 4 }],
  open(6),
  open(18),
];
