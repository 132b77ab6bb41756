import { ScrollingModule } from '@angular/cdk/scrolling';
import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { AssetIndex, canBeLaid, inOrder, within } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { RouterLink } from '@angular/router';
import { X } from 'lucide';
import { Icon } from '../icons/icon';
import { AssetPicture } from './asset-picture';
import { CARRIED_ASSET } from './carried';
import { folderLines } from './folder-lines';
import { MaterialsStore } from './materials-store';
import { sayWhat } from './say-material';
import type { AssetInfo } from './shapes';

/** All materials beside a board, to be laid on its pages: one's own and those that others share. */
@Component({
  selector: 'cua-chooser-panel',
  imports: [AssetPicture, Icon, RouterLink, ScrollingModule],
  templateUrl: './chooser-panel.html',
  styleUrl: './chooser-panel.scss',
  host: { '(keydown.escape)': 'closed.emit()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooserPanel {
  readonly chosen = output<AssetInfo>();
  readonly closed = output();

  protected readonly store = inject(MaterialsStore);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  protected readonly icons = { X };
  protected readonly say = sayWhat;
  protected readonly query = signal('');
  /** The folder to choose from, with all that lies in it. */
  protected readonly folder = signal<Id | null>(null);

  /** Every folder that there is, one's own and others'. */
  private readonly allFolders = computed(() => [
    ...this.store.folders(),
    ...this.store.shared().flatMap(({ folders }) => folders),
  ]);
  protected readonly folders = computed(() => [
    ...folderLines(this.store.folders()),
    ...this.store
      .shared()
      .flatMap(({ owner, folders }) =>
        folderLines(folders).map(({ id, name }) => ({ id, name: `From ${owner.name} › ${name}` })),
      ),
  ]);
  /** Files that something can be done with here, the newest first, with the folders they lie in. */
  private readonly index = computed(() => {
    const folders = this.allFolders();
    const inside = this.folder() ? within(folders, this.folder()!) : null;
    const paths = new Map<Id | null, string>(this.folders().map(({ id, name }) => [id, name]));
    const assets = [
      ...this.store.assets(),
      ...this.store.shared().flatMap((shelf) => shelf.assets),
    ].filter(
      (asset) =>
        (canBeLaid(asset) || asset.kind === 'pdf') &&
        (!inside || (asset.folder !== null && inside.has(asset.folder))),
    );
    return new AssetIndex(inOrder(assets, 'newest'), ({ folder }) => paths.get(folder) ?? '');
  });
  protected readonly assets = computed(() => this.index().matching(this.query()));

  constructor() {
    void this.store.load();
    afterNextRender(() => this.field().nativeElement.focus());
  }

  protected readonly track = (_: number, { id }: AssetInfo): Id => id;

  protected lift(event: DragEvent, asset: AssetInfo): void {
    event.dataTransfer!.setData(CARRIED_ASSET, JSON.stringify(asset));
    event.dataTransfer!.effectAllowed = 'copy';
  }
}
