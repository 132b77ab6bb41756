import { inject, Injectable } from '@angular/core';
import { TitleStrategy } from '@angular/router';
import type { RouterStateSnapshot } from '@angular/router';
import { WindowTitle } from '../ui/title/window-title';

/** Each screen's name in the title of the window, from its route; a screen of one thing names that itself. */
@Injectable()
export class ScreenTitles extends TitleStrategy {
  private readonly title = inject(WindowTitle);

  override updateTitle(snapshot: RouterStateSnapshot): void {
    const name = this.buildTitle(snapshot);
    if (name !== undefined) this.title.name(name);
  }
}
