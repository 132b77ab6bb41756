import { signal } from '@angular/core';
import type { Signal } from '@angular/core';
import type * as z from 'zod';
import { lasting, remember } from '../../browser/storage';

/**
 * What the next item of a kind is like. It stays as it was left, on this machine; what lies there may be of another build, or
 * whatever somebody put there: then it is as at first.
 */
export class NextStyle<Style extends object> {
  private readonly now;
  readonly value: Signal<Style>;
  private readonly key: string;

  /** @param name of the kind: by it the style is kept */
  constructor(name: string, schema: z.ZodType<Style>, first: Style) {
    this.key = `cuaderno.${name}`;
    this.now = signal(kept(this.key, schema) ?? first);
    this.value = this.now.asReadonly();
  }

  set(to: Partial<Style>): void {
    this.now.update((style) => ({ ...style, ...to }));
    remember(lasting, this.key, JSON.stringify(this.now()));
  }
}

function kept<Style>(key: string, schema: z.ZodType<Style>): Style | undefined {
  try {
    return schema.safeParse(JSON.parse(lasting.getItem(key) ?? 'null')).data;
  } catch {
    return undefined;
  }
}
