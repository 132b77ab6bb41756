import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { DoorOpen } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { namesOf, formatWaiting, WhoWaits } from './who-waits';

/** The same in the bar above a board, where nothing may move the page. */
@Component({
  selector: 'cua-waiting-link',
  imports: [Button, Icon, RouterLink, Tip],
  template: `
    @if (first(); as one) {
      <a cuaButton [routerLink]="one.way" [cuaTip]="one.words" [attr.aria-label]="one.words">
        <cua-icon [of]="icon" [size]="18" /><bdi>{{ one.names }}</bdi>
      </a>
    }
  `,
  styles: `
    a {
      border-color: var(--amber);
      background: var(--amber-soft);
      color: var(--amber);
      font-weight: 600;
    }
    bdi {
      max-width: 9rem;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WaitingLink {
  protected readonly icon = DoorOpen;
  private readonly waits = inject(WhoWaits);
  protected readonly first = computed(() => {
    const [one] = this.waits.elsewhere();
    if (!one) return null;
    const way = one.board ? ['/boards', one.board] : ['/courses', one.course];
    return { way, names: namesOf(one), words: formatWaiting(one) };
  });
}
