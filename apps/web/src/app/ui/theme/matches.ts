import { DestroyRef, inject, signal } from '@angular/core';
import type { Signal } from '@angular/core';

/** A window in which all stands below the page: `$narrow` of the breakpoints. */
export const SMALL_WINDOW = '(max-width: 720px)';

/** A window with room above the page for what is below it elsewhere: wider than `$laptop` of the breakpoints. */
export const WIDE_WINDOW = '(min-width: 1101px)';

/** A window with room for columns beside one another: wider than `$tablet` of the breakpoints. */
export const ABOVE_TABLET = '(min-width: 901px)';

/** A phone on its side: little room below the page, and enough above it. */
export const PHONE_ON_ITS_SIDE = '(max-height: 480px) and (min-width: 721px)';

/** Whether a media query holds, as long as who asks is there. In an injection context. */
export function matches(query: string): Signal<boolean> {
  const list = matchMedia(query);
  const holds = signal(list.matches);
  const hear = (): void => holds.set(list.matches);
  list.addEventListener('change', hear);
  inject(DestroyRef).onDestroy(() => list.removeEventListener('change', hear));
  return holds.asReadonly();
}
