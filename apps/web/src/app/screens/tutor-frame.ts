import { ChangeDetectionStrategy, Component, CSP_NONCE, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { PrimeNG } from 'primeng/config';
import { paperAndInk } from '../theme/theme';

/** Around all screens of the tutor: loads what only they use. */
@Component({
  selector: 'cua-tutor-frame',
  imports: [RouterOutlet],
  template: '<router-outlet />',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TutorFrame {
  constructor() {
    inject(PrimeNG).setConfig({
      theme: { preset: paperAndInk, options: { darkModeSelector: 'system', cssLayer: false } },
      csp: { nonce: inject(CSP_NONCE) ?? undefined },
    });
  }
}
