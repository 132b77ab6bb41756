import { inject, Injectable } from '@angular/core';
import { TitleStrategy } from '@angular/router';
import type { RouterStateSnapshot } from '@angular/router';
import { WindowTitle } from '../ui/title/window-title';

/** Each screen's name in the title of the window, from its route; those of one thing add its name themselves. */
@Injectable()
export class ScreenTitles extends TitleStrategy {
  private readonly title = inject(WindowTitle);

  override updateTitle(snapshot: RouterStateSnapshot): void {
    this.title.name(this.buildTitle(snapshot) ?? null);
  }
}
