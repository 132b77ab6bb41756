import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import type { AssetKind } from '@cuaderno/core/materials';
import { AudioLines, Clapperboard, FileText, Image, NotebookTabs, Presentation } from 'lucide';
import type { IconNode } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import type { AssetInfo } from './shapes';

const ICONS: Record<AssetKind, IconNode> = {
  pdf: FileText,
  slides: Presentation,
  board: NotebookTabs,
  picture: Image,
  sound: AudioLines,
  film: Clapperboard,
};

/** A small picture of a file; a sign of its kind where there is none. */
@Component({
  selector: 'cua-asset-picture',
  imports: [Icon],
  template: `
    @if (address(); as src) {
      <img
        [src]="src"
        [class.coming]="!here()"
        alt=""
        loading="lazy"
        draggable="false"
        (load)="here.set(true)"
        (error)="failed.set(true)"
      />
    }
    @if (!here()) {
      <cua-icon [of]="icon()" [size]="26" />
    }
  `,
  styles: `
    :host {
      display: grid;
      place-items: center;
      overflow: hidden;
      color: var(--ink-soft);
    }
    img {
      max-width: 100%;
      max-height: 100%;
      min-width: 0;
      min-height: 0;
      background: var(--page);
      box-shadow: 0 0 0 1px var(--line);
    }
    img,
    cua-icon {
      grid-area: 1 / 1;
    }
    .coming {
      visibility: hidden;
    }
  `,
  host: { 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AssetPicture {
  readonly asset = input.required<AssetInfo>();
  protected readonly failed = linkedSignal(() => (this.asset(), false));
  /** Whether the picture has come: until then the sign of its kind stands there. */
  protected readonly here = linkedSignal(() => (this.address(), false));
  protected readonly icon = computed(() => ICONS[this.asset().kind]);
  protected readonly address = computed(() =>
    this.asset().pictured && !this.failed()
      ? `/api/materials/assets/${this.asset().id}/picture`
      : null,
  );
}
