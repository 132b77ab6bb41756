import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { DoorOpen } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { formatWaiting, WhoWaits } from './who-waits';

/** Says on any screen of the tutor that somebody waits, and leads there. */
@Component({
  selector: 'cua-waiting-line',
  imports: [Button, Icon, RouterLink],
  template: `
    @for (one of lines(); track one.course) {
      <p role="status">
        <cua-icon [of]="icon" [size]="18" />
        <bdi>{{ one.words }}.</bdi>
        @if (one.board) {
          <a cuaButton [routerLink]="['/boards', one.board]">Go to the lesson</a>
        } @else {
          <a cuaButton [routerLink]="['/courses', one.course]">Go to the course</a>
        }
      </p>
    }
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: var(--space-2) var(--space-6);
      margin: 0;
      padding: var(--space-2) var(--space-10);
      background: var(--amber-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WaitingLine {
  protected readonly icon = DoorOpen;
  private readonly waits = inject(WhoWaits);
  protected readonly lines = computed(() =>
    this.waits.elsewhere().map((one) => ({ ...one, words: formatWaiting(one) })),
  );
}
