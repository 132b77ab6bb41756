import { lasting, remember } from '../../browser/storage';

/** What one finger does where it may write: by itself it writes, unless a pen is in use. */
export type FingerUse = 'auto' | 'write' | 'move';

const KEY = 'cuaderno.fingers';

/** What was chosen in this browser; `auto` until something was. */
export function keptFingerUse(): FingerUse {
  const kept = lasting.getItem(KEY);
  return kept === 'write' || kept === 'move' ? kept : 'auto';
}

/** A tablet is used by the same hand in the next lesson. */
export function keepFingerUse(use: FingerUse): void {
  remember(lasting, KEY, use);
}
