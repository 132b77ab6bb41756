import { ChangeDetectionStrategy, Component, CSP_NONCE, inject, signal } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { PrimeNG } from 'primeng/config';
import { paperAndInk } from '../theme/theme';
import { Reminder } from '../timetable/reminder';
import { SignInAgain } from './sign-in/sign-in-again';

/** Around all screens of the tutor: loads what only they use. */
@Component({
  selector: 'cua-tutor-frame',
  imports: [Reminder, RouterOutlet, SignInAgain],
  template: `
    <cua-reminder (said)="reminded.set($event)" />
    <cua-sign-in-again />
    <router-outlet />
  `,
  styles: `
    :host(.reminded) {
      display: grid;
      grid-template-rows: auto 0 0 minmax(0, 1fr);
      height: 100%;
    }
  `,
  host: { '[class.reminded]': 'reminded()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TutorFrame {
  /** Whether a line stands above the screen. */
  protected readonly reminded = signal(false);

  constructor() {
    inject(PrimeNG).setConfig({
      theme: { preset: paperAndInk, options: { darkModeSelector: 'system', cssLayer: false } },
      csp: { nonce: inject(CSP_NONCE) ?? undefined },
    });
  }
}
