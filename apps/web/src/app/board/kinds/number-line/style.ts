import { signal } from '@angular/core';
import { NumberLineSpec } from '@cuaderno/core';
import type { Marking } from '@cuaderno/core';
import { lasting, remember } from '../../../browser/storage';

const KEY = 'cuaderno.number-line';

/** What the next number line has. */
export type NumberLineStyle = Pick<NumberLineSpec, 'from' | 'to' | 'step' | 'labels'>;

const Kept = NumberLineSpec.pick({ from: true, to: true, step: true, labels: true });

const FIRST: NumberLineStyle = { from: 0, to: 10, step: 1, labels: 'whole' };

function kept(): NumberLineStyle {
  try {
    return Kept.safeParse(JSON.parse(lasting.getItem(KEY) ?? 'null')).data ?? FIRST;
  } catch {
    return FIRST;
  }
}

/** How the next number line will be. It stays as it was left, on this machine. */
export const numberLineStyle = signal(kept());

/** What the tool does on a line that lies there; `null` while it lays new ones. */
export const marking = signal<Marking | null>(null);

export function keepStyle(style: NumberLineStyle): void {
  numberLineStyle.set(style);
  remember(lasting, KEY, JSON.stringify(style));
}
