import { computed, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import { lasting, remember } from '../../../browser/storage';

/** Sizes of letters, in CSS px. */
const SIZES = [16, 20, 26, 34, 46, 64] as const;
const FIRST = 2;
const KEY = 'cuaderno.captions';
const Kept = z.strictObject({
  size: z
    .number()
    .int()
    .min(0)
    .max(SIZES.length - 1),
  hidden: z.boolean(),
});

/** How large this reader likes captions, and whether they want any: kept in this browser. */
@Injectable({ providedIn: 'root' })
export class CaptionSize {
  private readonly kept = signal(read());
  readonly hidden = computed(() => this.kept().hidden);
  /** In CSS px. */
  readonly size = computed(() => SIZES[this.kept().size]!);
  readonly isSmallest = computed(() => this.kept().size === 0);
  readonly isLargest = computed(() => this.kept().size === SIZES.length - 1);

  /** @param by 1 for larger, -1 for smaller */
  change(by: 1 | -1): void {
    const size = Math.min(SIZES.length - 1, Math.max(0, this.kept().size + by));
    this.keep({ ...this.kept(), size });
  }

  hide(hidden: boolean): void {
    this.keep({ ...this.kept(), hidden });
  }

  private keep(kept: z.infer<typeof Kept>): void {
    this.kept.set(kept);
    remember(lasting, KEY, JSON.stringify(kept));
  }
}

function read(): z.infer<typeof Kept> {
  try {
    return Kept.parse(JSON.parse(lasting.getItem(KEY) ?? ''));
  } catch {
    return { size: FIRST, hidden: false };
  }
}
