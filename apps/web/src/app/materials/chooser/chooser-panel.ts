import { ScrollingModule } from '@angular/cdk/scrolling';
import type { ElementRef } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { AssetIndex, canBeLaid, inOrder, within } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import { RouterLink } from '@angular/router';
import { HandHelping, Upload, X } from 'lucide';
import { LIST } from '../../ui/list/list';
import { Button } from '../../ui/button/button';
import { Tip } from '../../ui/tip/tip';
import { HandOverDialog } from '../handing-over/hand-over-dialog';
import { Icon } from '../../ui/icons/icon';
import { AssetPicture } from '../store/asset-picture';
import { CARRIED_ASSET } from '../store/carried';
import { folderLines } from '../store/folder-lines';
import { MaterialsStore } from '../store/materials-store';
import { PAGES_GO } from '../store/pages-go';
import type { PagesGo } from '../store/pages-go';
import { formatAsset } from '../store/format-material';
import type { AssetInfo } from '../store/shapes';
import { UploadQueue } from '../store/upload-queue';
import { UploadList } from '../store/upload-list';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** A file that is chosen for a board; of a PDF, where its pages go. */
export interface PagesChoice {
  readonly asset: AssetInfo;
  readonly pagesGo: PagesGo;
}

/** All materials beside a board, to be laid on its pages: one's own and those that others share. */
@Component({
  selector: 'cua-chooser-panel',
  imports: [
    AssetPicture,
    Button,
    FormsModule,
    HandOverDialog,
    Icon,
    ProblemMessage,
    RouterLink,
    ScrollingModule,
    LIST,
    Tip,
    UploadList,
    EmptyState,
  ],
  templateUrl: './chooser-panel.html',
  styleUrl: './chooser-panel.scss',
  host: { '(keydown.escape)': 'closed.emit()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooserPanel {
  /** The course of the board. */
  readonly course = input<Id | null>(null);
  /** Goes up when a student has fetched what was handed over. */
  readonly handed = input(0);
  readonly chosen = output<PagesChoice>();
  readonly closed = output();

  protected readonly store = inject(MaterialsStore);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  private readonly queue = inject(UploadQueue);
  protected readonly icons = { HandHelping, Upload, X };
  protected readonly ways = PAGES_GO;
  protected readonly pagesGo = signal<PagesGo>('after');
  /** What is being handed over. */
  protected readonly handing = signal<AssetInfo | null>(null);
  protected readonly say = formatAsset;
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
  protected readonly choices = computed(() => [
    { id: null, name: 'All folders' },
    ...this.folders(),
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
        asset.kind !== 'board' && (!inside || (asset.folder !== null && inside.has(asset.folder))),
    );
    return new AssetIndex(inOrder(assets, 'newest'), ({ folder }) => paths.get(folder) ?? '');
  });
  protected readonly assets = computed(() => this.index().matching(this.query()));
  protected readonly hasPdf = computed(() => this.assets().some(({ kind }) => kind === 'pdf'));
  /** Files of others are theirs to hand over. */
  protected readonly own = computed(() => new Set(this.store.assets().map(({ id }) => id)));

  constructor() {
    void this.store.load();
    afterNextRender(() => this.field().nativeElement.focus());
  }

  protected readonly track = (_: number, { id }: AssetInfo): Id => id;

  /** Slides become a board of their own, elsewhere; here they can be handed over. */
  protected canBeUsed(asset: AssetInfo): boolean {
    return canBeLaid(asset) || asset.kind === 'pdf';
  }

  protected choose(asset: AssetInfo): void {
    this.chosen.emit({ asset, pagesGo: this.pagesGo() });
  }

  /** Files are kept in the folder that is chosen, if that is one's own. */
  protected upload(files: FileList | null): void {
    const own = this.store.folders().some(({ id }) => id === this.folder());
    if (files) this.queue.send([...files], own ? this.folder() : null);
  }

  protected lift(event: DragEvent, asset: AssetInfo): void {
    event.dataTransfer!.setData(CARRIED_ASSET, JSON.stringify(asset));
    event.dataTransfer!.effectAllowed = 'copy';
  }
}
