import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { UnexpectedNotice } from './shell/unexpected/unexpected-notice';

@Component({
  selector: 'cua-root',
  imports: [RouterOutlet, UnexpectedNotice],
  template: '<cua-unexpected-notice /><router-outlet />',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Root {}
