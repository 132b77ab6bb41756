import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { MainBar } from './main-bar/main-bar';

/** Around the tutor's main screens: the bar by which each is a touch away from every other. */
@Component({
  selector: 'cua-main-frame',
  imports: [MainBar, RouterOutlet],
  template: `
    <cua-main-bar />
    <router-outlet />
  `,
  styles: `
    :host {
      display: block;
      min-height: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MainFrame {}
