import { NgComponentOutlet } from '@angular/common';
import type { Type } from '@angular/core';
import { ChangeDetectionStrategy, Component, effect, input, signal } from '@angular/core';
import type { FeatureComponents } from './feature';
import { FEATURES } from './register';

const ALL: readonly (FeatureComponents | null)[] = Object.values(FEATURES).map(
  ({ views }) => views,
);

/** Where features show themselves, one after the other: a screen says where that is, and knows none of them. */
@Component({
  selector: 'cua-feature-views',
  imports: [NgComponentOutlet],
  template: `
    @for (view of views(); track view) {
      <ng-container *ngComponentOutlet="view; inputs: given()" />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FeatureViews {
  readonly at = input.required<keyof FeatureComponents>();
  /** What each is given there: see `FeatureComponents`. */
  readonly given = input.required<Record<string, unknown>>();

  protected readonly views = signal<readonly Type<unknown>[]>([]);

  constructor() {
    effect(() => {
      const at = this.at();
      // What doesn't come over the line is told as all code is that doesn't: see `shell/unexpected/`.
      void Promise.all(ALL.map((views) => views?.[at]?.() ?? null)).then((came) =>
        this.views.set(came.filter((view) => view !== null)),
      );
    });
  }
}
