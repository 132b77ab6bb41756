import { CSP_NONCE, inject } from '@angular/core';
import { PrimeNG } from 'primeng/config';
import { paperAndInk } from './theme';

/**
 * Gives PrimeNG our colours, and the nonce without which the page's policy lets none of its styles in. Called once where
 * injection is possible, by what stands around its components: a student's screen doesn't load it.
 */
export function usePrimeTheme(): void {
  inject(PrimeNG).setConfig({
    theme: { preset: paperAndInk, options: { darkModeSelector: 'system', cssLayer: false } },
    csp: { nonce: inject(CSP_NONCE) ?? undefined },
  });
}
