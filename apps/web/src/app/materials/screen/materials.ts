import { ChoiceShape } from '@cuaderno/contract/materials';
import { AssetIndex, inOrder, pathTo } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import type { AssetOrder, Folder } from '@cuaderno/core/materials';
import { ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { ElementRef } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { Folder as FolderIcon, FolderPlus, Upload, UsersRound } from 'lucide';
import { CheckboxModule } from 'primeng/checkbox';
import { LIST } from '../../ui/list/list';
import { problemOf } from '../../api/problem';
import { readJson } from '../../browser/read-json';
import { Button } from '../../ui/button/button';
import { Confirm } from '../../ui/confirm/confirm';
import { Icon } from '../../ui/icons/icon';
import { AssetPicture } from '../store/asset-picture';
import { droppedFiles } from '../store/dropped-files';
import { pathOf } from '../store/folder-lines';
import { formatAsset, formatBytes, formatNames } from '../store/format-material';
import { MaterialsStore } from '../store/materials-store';
import { countOf } from '../store/shapes';
import type { AssetInfo, Choice, ShelfInfo, UseInfo } from '../store/shapes';
import { UploadList } from '../store/upload-list';
import { UploadQueue } from '../store/upload-queue';
import { DIALOG } from '../../ui/popup/dialog';
import { formatDate } from '../../ui/time/format-time';
import { AssetPanel } from './asset-panel';
import { FolderTree } from './folder-tree';
import { addressOf, folderRows, placeOf } from './place';
import type { LibraryPlace, ListedRow } from './place';
import { PutDialog } from './put-dialog';
import { ShareDialog } from './share-dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** What is carried from the list to a folder. */
const CARRIED = 'application/x-cuaderno-materials';

const ORDERS: readonly { readonly order: AssetOrder; readonly label: string }[] = [
  { order: 'name', label: 'by name' },
  { order: 'newest', label: 'newest first' },
  { order: 'largest', label: 'largest first' },
  { order: 'kind', label: 'by kind' },
];

/** The tutor's files in their folders: to bring, put in order, find, share, and make boards of. */
@Component({
  selector: 'cua-materials',
  imports: [
    AssetPanel,
    AssetPicture,
    Button,
    CheckboxModule,
    Confirm,
    DIALOG,
    FolderTree,
    FormsModule,
    Icon,
    ProblemMessage,
    PutDialog,
    ScrollingModule,
    LIST,
    ShareDialog,
    UploadList,
    EmptyState,
  ],
  templateUrl: './materials.html',
  styleUrl: './materials.scss',
  host: {
    '(dragover)': 'over($event)',
    '(dragleave)': 'dropping.set(false)',
    '(drop)': 'drop($event)',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialsScreen {
  /** From the address: where one is. */
  readonly at = input<string>();

  private readonly router = inject(Router);
  protected readonly store = inject(MaterialsStore);
  private readonly queue = inject(UploadQueue);
  protected readonly icons = { FolderIcon, FolderPlus, Upload, UsersRound };
  protected readonly say = { bytes: formatBytes, date: formatDate, what: formatAsset };
  protected readonly orders = ORDERS;
  protected readonly order = signal<AssetOrder>('name');
  protected readonly query = signal('');
  protected readonly dropping = signal(false);
  protected readonly naming = signal<Id | null>(null);
  protected readonly putting = signal<'move' | 'copy' | null>(null);
  protected readonly sharing = signal<Folder | null>(null);
  protected readonly emptying = signal(false);
  /** What lies in the bin, once it was looked into. */
  protected readonly bin = signal<ShelfInfo>({ folders: [], assets: [] });
  /** What was put into the bin just now, in words, and what it was. */
  protected readonly gone = signal<{ words: string; choice: Choice } | null>(null);
  /** The file that is looked at. */
  private readonly looking = signal<Id | null>(null);

  protected readonly place = computed<LibraryPlace>(() =>
    placeOf(this.at(), { folders: this.store.folders(), shared: this.store.shared() }),
  );
  protected readonly own = computed(() => this.place().kind === 'own');
  protected readonly folder = computed(() => {
    const place = this.place();
    return place.kind === 'bin' ? null : place.folder;
  });
  /** The shelf one is at: one's own, another tutor's, or the bin. */
  protected readonly shelf = computed<ShelfInfo>(() => {
    const place = this.place();
    if (place.kind === 'bin') return this.bin();
    if (place.kind === 'own') return { folders: this.store.folders(), assets: this.store.assets() };
    return this.store.shared().find(({ owner }) => owner.id === place.owner)!;
  });
  protected readonly title = computed(() => {
    const place = this.place();
    if (place.kind === 'bin') return 'Bin';
    const path = pathTo(this.shelf().folders, place.folder);
    if (path.length > 0) return path.at(-1)!.name;
    if (place.kind === 'own') return 'My materials';
    return `From ${this.store.shared().find((one) => one.owner.id === place.owner)!.owner.name}`;
  });
  /** Folders in which the one lies where one is. */
  protected readonly above = computed(() => {
    const { folders } = this.shelf();
    return pathOf(folders, folders.find(({ id }) => id === this.folder())?.parent ?? null);
  });
  /** The folder one is in, of one's own. */
  protected readonly here = computed<Folder | null>(() =>
    this.own() ? (this.store.folders().find(({ id }) => id === this.folder()) ?? null) : null,
  );

  private readonly sorted = computed(() => inOrder(this.shelf().assets, this.order()));
  private readonly index = computed(
    () => new AssetIndex(this.sorted(), ({ folder }) => this.paths().get(folder) ?? ''),
  );
  private readonly paths = computed(() => {
    const { folders } = this.shelf();
    return new Map<Id | null, string>(folders.map(({ id }) => [id, pathOf(folders, id)]));
  });

  protected readonly rows = computed<readonly ListedRow[]>(() => {
    const row = (asset: AssetInfo, path: string): ListedRow => ({
      kind: 'asset',
      id: asset.id,
      asset,
      path,
    });
    if (this.query().trim() !== '')
      return this.index()
        .matching(this.query())
        .map((asset) => row(asset, this.paths().get(asset.folder) ?? ''));
    // In the bin, everything was removed by itself, wherever it lay.
    const here = (parent: Id | null): boolean =>
      this.place().kind === 'bin' || parent === this.folder();
    const shelf = this.shelf();
    const folders = folderRows(
      shelf,
      shelf.folders.filter(({ parent }) => here(parent)),
    );
    const assets = this.sorted().filter(({ folder }) => here(folder));
    return [...folders, ...assets.map((asset) => row(asset, ''))];
  });

  /** What is chosen, of what is shown. */
  protected readonly chosen = linkedSignal<readonly ListedRow[], ReadonlySet<Id>>({
    source: this.rows,
    computation: (rows, before) => {
      const there = new Set(rows.map(({ id }) => id));
      return new Set([...(before?.value ?? [])].filter((id) => there.has(id)));
    },
  });
  protected readonly choice = computed<Choice>(() => {
    const rows = this.rows().filter(({ id }) => this.chosen().has(id));
    return {
      folders: rows.filter(({ kind }) => kind === 'folder').map(({ id }) => id),
      assets: rows.filter(({ kind }) => kind === 'asset').map(({ id }) => id),
    };
  });
  protected readonly count = computed(() => countOf(this.choice()));
  protected readonly all = computed(
    () => this.rows().length > 0 && this.count() === this.rows().length,
  );
  protected readonly asset = computed(
    () => this.shelf().assets.find(({ id }) => id === this.looking()) ?? null,
  );

  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('title');

  constructor() {
    effect(() => {
      const field = this.nameField()?.nativeElement;
      field?.focus();
      field?.select();
    });
    void this.store.load();
    void this.queue.lookForBroken();
    effect(() => {
      const inBin = this.place().kind === 'bin';
      this.store.binned();
      if (inBin) untracked(() => void this.loadBin());
    });
  }

  protected track = (_: number, { id }: ListedRow): Id => id;

  protected go(place: LibraryPlace): void {
    this.query.set('');
    this.looking.set(null);
    this.chosen.set(new Set());
    void this.router.navigate(['/materials'], { queryParams: { at: addressOf(place) } });
  }

  protected open(row: ListedRow): void {
    if (row.kind === 'asset') return this.looking.set(row.id);
    const place = this.place();
    if (place.kind !== 'bin') this.go({ ...place, folder: row.id });
  }

  protected shut(): void {
    this.looking.set(null);
  }

  protected choose(id: Id, on: boolean): void {
    this.chosen.update((ids) => {
      const next = new Set(ids);
      if (on) next.add(id);
      else next.delete(id);
      return next;
    });
  }

  protected chooseAll(on: boolean): void {
    this.chosen.set(new Set(on ? this.rows().map(({ id }) => id) : []));
  }

  protected async makeFolder(): Promise<void> {
    const made = await this.store.makeFolder('New folder', this.folder());
    if (made) this.naming.set(made.id);
  }

  protected async name(folder: Folder, name: string): Promise<void> {
    // Leaving the field after Enter says it twice.
    if (this.naming() !== folder.id) return;
    this.naming.set(null);
    if (name.trim() !== '' && name !== folder.name) await this.store.nameFolder(folder.id, name);
  }

  protected async put(to: Id | null): Promise<void> {
    const how = this.putting();
    this.putting.set(null);
    const done =
      how === 'copy'
        ? await this.store.copy(this.choice(), to)
        : await this.store.move(this.choice(), to);
    if (done) this.chosen.set(new Set());
  }

  /** Puts things into the bin, and says on which boards they stay. */
  protected async remove(choice: Choice): Promise<void> {
    const names = this.rows()
      .filter(({ id }) => choice.assets.includes(id) || choice.folders.includes(id))
      .map((row) => (row.kind === 'folder' ? row.folder.name : row.asset.name));
    if (!(await this.store.remove(choice))) return;
    this.looking.set(null);
    const gone = {
      words: `${formatNames(names)} ${countOf(choice) === 1 ? 'lies' : 'lie'} in the bin.`,
      choice,
    };
    this.gone.set(gone);
    // Boards are looked through for that; nobody waits for it.
    const stays = sayStays(await this.store.uses(choice).catch(() => []));
    this.gone.update((now) => (now === gone ? { ...gone, words: `${gone.words}${stays}` } : now));
  }

  protected async bringBack(choice: Choice): Promise<void> {
    if (await this.store.restore(choice)) this.gone.set(null);
  }

  protected async emptyBin(): Promise<void> {
    this.emptying.set(false);
    this.gone.set(null);
    await this.store.emptyBin();
  }

  protected upload(files: FileList | null): void {
    this.queue.send([...(files ?? [])], this.folder());
  }

  protected lift(event: DragEvent, row: ListedRow): void {
    if (!this.own()) return event.preventDefault();
    if (!this.chosen().has(row.id)) this.chosen.set(new Set([row.id]));
    event.dataTransfer!.setData(CARRIED, JSON.stringify(this.choice()));
    event.dataTransfer!.effectAllowed = 'move';
  }

  protected over(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    // Also where nothing can be put: the browser would open it in place of all this.
    event.preventDefault();
    this.dropping.set(this.own());
  }

  protected drop(event: DragEvent): void {
    this.dropping.set(false);
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    if (this.own()) void this.uploadDropped(event.dataTransfer, this.folder());
  }

  protected overFolder(event: DragEvent): void {
    if (this.own()) event.preventDefault();
  }

  protected droppedOnRow(event: DragEvent, folder: Id): void {
    // In another's folders and in the bin it is as if it had missed.
    if (this.own()) void this.droppedOn(event, { kind: 'own', folder });
  }

  /** Something was let go over a folder, or over the bin. */
  protected async droppedOn(event: DragEvent, place: LibraryPlace): Promise<void> {
    event.preventDefault();
    event.stopPropagation();
    this.dropping.set(false);
    const data = event.dataTransfer!;
    const folder = place.kind === 'own' ? place.folder : null;
    if (data.types.includes('Files')) {
      if (place.kind === 'own') await this.uploadDropped(data, folder);
      return;
    }
    const carried = data.getData(CARRIED);
    // Anything may be dragged here, from any page.
    const choice = carried ? readJson(ChoiceShape, carried) : null;
    if (!choice) return;
    if (place.kind === 'bin') await this.remove(choice);
    else if (place.kind === 'own') await this.store.move(choice, folder);
    this.chosen.set(new Set());
  }

  /** Files that were let go here, and folders of them as they lie on the tutor's machine. */
  private async uploadDropped(data: DataTransfer, into: Id | null): Promise<void> {
    const made = new Map<string, Id | null>([['', into]]);
    for (const { path, files } of await droppedFiles(data)) {
      let folder = into;
      let so = '';
      for (const name of path) {
        so += `/${name}`;
        if (!made.has(so)) {
          const one = await this.store.makeFolder(name, folder);
          if (!one) return;
          made.set(so, one.id);
        }
        folder = made.get(so)!;
      }
      this.queue.send(files, folder);
    }
  }

  private async loadBin(): Promise<void> {
    try {
      this.bin.set(await this.store.bin());
    } catch (error) {
      this.store.problem.set(problemOf(error));
    }
  }
}

/** " What is on “Ebb” stays there." */
function sayStays(uses: readonly UseInfo[]): string {
  if (uses.length === 0) return '';
  const boards = uses.map(({ title }) => `“${title}”`);
  return ` What is on ${boards.length < 3 ? boards.join(' and ') : `${boards.length} boards`} stays there.`;
}
