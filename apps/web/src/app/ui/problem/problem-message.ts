import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** What went wrong, in words: as a problem of the server has it (RFC 9457), or as we say it ourselves. */
export interface ProblemWords {
  readonly title: string;
  readonly detail: string;
}

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
  readonly of = input.required<ProblemWords | null>();
}
