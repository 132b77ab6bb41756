import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/**
 * What a place says in which there is nothing yet: what will be there, and what to do first. On a screen it has a frame,
 * where things will lie; `plain` in a panel or dialog.
 */
@Component({
  selector: '[cuaEmpty]',
  template: '<ng-content />',
  styles: `
    :host {
      color: var(--ink-soft);
    }
    :host(.framed) {
      padding: var(--space-9);
      border: 1px dashed var(--ink-soft);
      border-radius: var(--round);
    }
  `,
  host: { '[class.framed]': "cuaEmpty() !== 'plain'" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EmptyState {
  readonly cuaEmpty = input<'' | 'plain'>('');
}
