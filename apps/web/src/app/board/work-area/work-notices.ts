import { ChangeDetectionStrategy, Component, effect, input } from '@angular/core';
import type { Problem } from '@cuaderno/core/problem';
import type { BoardSession } from '../../live/board-session';
import { LineNotice } from '../../live/line-notice';
import { Button } from '../../ui/button/button';
import { Passing } from '../../ui/time/passing';
import type { Arranging } from '../editing/arranging';
import type { MaterialInserter } from '../editing/material-inserter';

/** How long what the server would not take is shown, in ms. */
const PROBLEM_SHOWN = 6000;

/** Below the page: what comes and goes here moves nothing that is looked at or written on. */
@Component({
  selector: 'cua-work-notices',
  imports: [Button, LineNotice],
  template: `
    <ng-content />
    <cua-line-notice
      [state]="session().line()"
      [quiet]="session().quiet()"
      [keeps]="session().keeps()"
      [waiting]="session().unconfirmed()"
    />
    @if (problem(); as problem) {
      <p class="said" role="status">{{ problem.detail }}</p>
    }
    @if (arranging().said(); as words) {
      <p class="said" role="status">{{ words }}</p>
    }
    @if (pictures().part() !== null) {
      <p class="said" role="status">
        Uploading: {{ percentOf(pictures().part()!) }} %
        <button type="button" cuaButton (click)="pictures().stop()">Stop</button>
      </p>
    }
    @if (pictures().coming(); as words) {
      <p class="said" role="status">{{ words }}</p>
    }
    @if (pictures().remark(); as words) {
      <p class="said" role="status">
        {{ words }}
        <button type="button" cuaButton (click)="pictures().remark.set(null)">All right</button>
      </p>
    }
    @if (pictures().problem(); as problem) {
      <p class="said" role="alert">
        <strong>{{ problem.title }}</strong> {{ problem.detail }}
        <button type="button" cuaButton (click)="pictures().problem.set(null)">All right</button>
      </p>
    }
  `,
  styleUrl: './work-notices.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorkNotices {
  readonly session = input.required<BoardSession>();
  readonly arranging = input.required<Arranging>();
  readonly pictures = input.required<MaterialInserter>();

  private readonly refused = new Passing<Problem>(PROBLEM_SHOWN);
  protected readonly problem = this.refused.now;

  constructor() {
    effect(() => {
      const problem = this.session().problem();
      if (problem) this.refused.say(problem);
    });
  }

  protected percentOf(part: number): number {
    return Math.round(part * 100);
  }
}
