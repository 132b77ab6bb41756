import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  effect,
} from '@angular/core';
import type { IconNode } from 'lucide';

/** An icon of the Lucide set, drawn in the colour of the text around it. */
@Component({
  selector: 'cua-icon',
  template: '',
  styles: `
    :host {
      display: inline-flex;
      flex: none;
    }
  `,
  host: { 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Icon {
  readonly of = input.required<IconNode>();
  /** Side in CSS px. */
  readonly size = input(22);

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly picture = computed(() => {
    const make = (name: string, attributes: Record<string, unknown>): Element => {
      const node = document.createElementNS('http://www.w3.org/2000/svg', name);
      for (const [key, value] of Object.entries(attributes)) node.setAttribute(key, String(value));
      return node;
    };
    const svg = make('svg', {
      width: this.size(),
      height: this.size(),
      viewBox: '0 0 24 24',
      fill: 'none',
      stroke: 'currentColor',
      'stroke-width': 2,
      'stroke-linecap': 'round',
      'stroke-linejoin': 'round',
    });
    for (const [name, attributes] of this.of()) svg.append(make(name, attributes));
    return svg;
  });

  constructor() {
    effect(() => this.element.replaceChildren(this.picture()));
  }
}
