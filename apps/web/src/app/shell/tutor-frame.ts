import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterOutlet } from '@angular/router';
import { usePrimeTheme } from '../ui/theme/prime-theme';
import { filter } from 'rxjs';
import { SignedOut } from '../api/signed-out';
import { Reminder } from '../lesson/reminder/reminder';
import { WaitingLine } from '../lesson/waiting/waiting-line';
import { WhoWaits } from '../lesson/waiting/who-waits';
import { AccountShortcuts } from './account-shortcuts';
import { SignInAgain } from '../account/sign-in/sign-in-again';

/** Around all screens of the tutor: loads what only they use. */
@Component({
  selector: 'cua-tutor-frame',
  imports: [Reminder, RouterOutlet, SignInAgain, WaitingLine],
  template: `
    <div class="lines">
      <!-- A board says both in places of its own: nothing may move the page. -->
      @if (waits.board() === null) {
        <cua-reminder (said)="reminded.set($event)" />
        <cua-waiting-line />
      }
    </div>
    <cua-sign-in-again />
    <router-outlet />
  `,
  styles: `
    :host(.lined) {
      display: grid;
      grid-template-rows: auto 0 0 minmax(0, 1fr);
      height: 100%;
    }
  `,
  host: { '[class.lined]': 'isLined()' },
  providers: [AccountShortcuts, WhoWaits],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TutorFrame {
  protected readonly waits = inject(WhoWaits);
  /** Whether it is said that a lesson begins soon. */
  protected readonly reminded = signal(false);
  /** Whether a line stands above the screen. */
  protected readonly isLined = computed(
    () => this.waits.board() === null && (this.reminded() || this.waits.elsewhere().length > 0),
  );

  constructor() {
    usePrimeTheme();
    inject(AccountShortcuts);
    const router = inject(Router);
    const follow = (): void =>
      this.waits.board.set(/^\/boards\/([^/?#]+)/.exec(router.url)?.[1] ?? null);
    router.events
      .pipe(
        filter((event) => event instanceof NavigationEnd),
        takeUntilDestroyed(),
      )
      .subscribe(follow);
    follow();
    inject(SignedOut)
      .again.pipe(takeUntilDestroyed())
      .subscribe(() => this.waits.resume());
    inject(DestroyRef).onDestroy(() => this.waits.close());
  }
}
