import { Location } from '@angular/common';
import { effect, inject, Injectable, signal } from '@angular/core';
import type { WritableSignal } from '@angular/core';
import { ActivatedRoute } from '@angular/router';

/**
 * What a screen shows stands in its address, so that a reload and Back find it again. It is no way from one screen to
 * another: the router isn't asked, and keys and links go on meanwhile.
 */
@Injectable({ providedIn: 'root' })
export class Address {
  private readonly location = inject(Location);
  private coming = new Map<string, string | null>();

  /** Puts it into the address, without a step for Back; `null` takes it out. */
  set(name: string, value: string | null): void {
    const [path] = this.parts();
    // All of one moment go together.
    if (this.coming.size === 0) queueMicrotask(() => this.write(path));
    this.coming.set(name, value);
  }

  private write(path: string): void {
    const [now, query] = this.parts();
    const params = new URLSearchParams(query);
    for (const [name, value] of this.coming)
      if (value === null) params.delete(name);
      else params.set(name, value);
    this.coming.clear();
    // Another screen is there by now, and its address isn't this one's.
    if (path === now && params.toString() !== new URLSearchParams(query).toString())
      this.location.replaceState(path, params.toString(), history.state);
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
