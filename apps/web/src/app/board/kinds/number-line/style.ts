import { signal } from '@angular/core';
import { NumberLineSpec } from '@cuaderno/core/kinds';
import type { Marking } from '@cuaderno/core/kinds';
import { NextStyle } from '../next-style';

/** What the next number line has. */
export type NumberLineStyle = Pick<NumberLineSpec, 'from' | 'to' | 'step' | 'labels'>;

const Style = NumberLineSpec.pick({ from: true, to: true, step: true, labels: true });

/** How the next number line will be. */
export const numberLineStyle = new NextStyle<NumberLineStyle>('number-line', Style, {
  ...{ from: 0, to: 10, step: 1, labels: 'whole' },
});

/** What the tool does on a line that lies there; `null` while it lays new ones. */
export const marking = signal<Marking | null>(null);
