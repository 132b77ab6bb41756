import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Problem } from '@cuaderno/core/problem';

/** What went wrong, and what to do next; what is put into it stands after the words. Nothing, while nothing is wrong. */
@Component({
  selector: 'cua-problem',
  template: `
    @if (of(); as problem) {
      <p class="problem" role="alert">
        <strong>{{ problem.title }}</strong> {{ problem.detail }}
        <ng-content />
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    :host:empty {
      display: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProblemMessage {
  readonly of = input.required<Pick<Problem, 'title' | 'detail'> | null>();
}
