import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Fullscreen, MoveHorizontal, ZoomIn, ZoomOut } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { Shortcuts } from '../shortcuts/shortcuts';
import { FULL_SIZE, ZOOM_STEP } from '../stage/camera';
import type { Stage } from '../stage/stage';

/** How much of the page is seen: nearer, farther, all of it. */
@Component({
  selector: 'cua-view-bar',
  imports: [Icon, Tip],
  template: `
    <ng-content />
    <button
      type="button"
      class="zoom"
      [cuaTip]="shortcuts.tip('Zoom out', 'zoom-out')"
      aria-label="Zoom out"
      (click)="stage().view.zoomBy(1 / zoomStep)"
    >
      <cua-icon [of]="icons.ZoomOut" [size]="20" />
    </button>
    <button
      type="button"
      class="zoom percent"
      cuaTip="Full size"
      (click)="stage().view.zoomTo(fullSize)"
    >
      {{ percent() }} %
    </button>
    <button
      type="button"
      class="zoom"
      [cuaTip]="shortcuts.tip('Zoom in', 'zoom-in')"
      aria-label="Zoom in"
      (click)="stage().view.zoomBy(zoomStep)"
    >
      <cua-icon [of]="icons.ZoomIn" [size]="20" />
    </button>
    @if (!isLed()) {
      <button
        type="button"
        class="zoom width"
        [cuaTip]="shortcuts.tip('As wide as the window', 'fit-width')"
        aria-label="As wide as the window"
        (click)="stage().view.fitWidth()"
      >
        <cua-icon [of]="icons.MoveHorizontal" [size]="20" />
      </button>
      <button
        type="button"
        class="zoom whole"
        [cuaTip]="shortcuts.tip('Whole page', 'fit-page')"
        aria-label="Whole page"
        (click)="stage().view.fitPage()"
      >
        <cua-icon [of]="icons.Fullscreen" [size]="20" />
      </button>
    }
  `,
  styleUrl: './view-bar.scss',
  host: { role: 'toolbar', 'aria-label': 'View' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ViewBar {
  readonly stage = input.required<Stage>();
  /** This window follows another: it can't be moved by itself. */
  readonly isLed = input(false);

  protected readonly shortcuts = inject(Shortcuts);
  protected readonly icons = { Fullscreen, MoveHorizontal, ZoomIn, ZoomOut };
  protected readonly zoomStep = ZOOM_STEP;
  protected readonly fullSize = FULL_SIZE;
  protected readonly percent = computed(() =>
    Math.round((this.stage().view.zoom() / FULL_SIZE) * 100),
  );
}
