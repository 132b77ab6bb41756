import { Location } from '@angular/common';
import { effect, inject, Injectable, signal } from '@angular/core';
import type { WritableSignal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute } from '@angular/router';
import { Subject, throttleTime } from 'rxjs';

/** Least time between two changes of the address, in ms: WebKit refuses more than 100 in 30 s (its History.cpp; from memory). */
const APART = 400;

/**
 * What a screen shows stands in its address, so that a reload and Back find it again. It is no way from one screen to
 * another: the router isn't asked, and keys and links go on meanwhile.
 */
@Injectable({ providedIn: 'root' })
export class Address {
  private readonly location = inject(Location);
  private readonly changes = new Subject<void>();
  /** What is to be put into the address of the screen at this path. */
  private readonly coming = new Map<string, string | null>();
  private path = '';

  constructor() {
    this.changes
      .pipe(throttleTime(APART, undefined, { leading: true, trailing: true }), takeUntilDestroyed())
      .subscribe(() => this.write());
  }

  /** Puts it into the address, without a step for Back; `null` takes it out. */
  set(name: string, value: string | null): void {
    const [path] = this.parts();
    // What was to come for another screen is no longer wanted.
    if (path !== this.path) this.coming.clear();
    this.path = path;
    // All of one moment go together.
    if (this.coming.size === 0)
      queueMicrotask(() => {
        if (this.wanted() === null) this.coming.clear();
        else this.changes.next();
      });
    this.coming.set(name, value);
  }

  private write(): void {
    const query = this.wanted();
    this.coming.clear();
    if (query !== null) this.location.replaceState(this.path, query, history.state);
  }

  /** The query as it is to be; `null` where it is so already, or another screen is there by now. */
  private wanted(): string | null {
    const [path, query] = this.parts();
    const params = new URLSearchParams(query);
    const before = params.toString();
    for (const [name, value] of this.coming)
      if (value === null) params.delete(name);
      else params.set(name, value);
    return path === this.path && params.toString() !== before ? params.toString() : null;
  }

  private parts(): [path: string, query: string] {
    const [path = '', query = ''] = this.location.path().split('?');
    return [path, query];
  }
}

/**
 * A value that stands in the address of the screen.
 * @param read what the address says, or `null` where it says nothing or nothing that can be
 * @param usual needn't be said
 */
export function inAddress<Value extends string | null>(
  name: string,
  read: (text: string) => Value | null,
  usual: Value,
): WritableSignal<Value> {
  const address = inject(Address);
  const text = inject(ActivatedRoute, { optional: true })?.snapshot.queryParamMap.get(name);
  const value = signal<Value>((text && read(text)) || usual);
  effect(() => address.set(name, value() === usual ? null : value()));
  return value;
}
