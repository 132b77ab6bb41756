import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { treeOf } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import type { Branch } from '@cuaderno/core/materials';
import { Folder as FolderIcon, FolderOpen, Trash2, UserRound, UsersRound } from 'lucide';
import type { IconNode } from 'lucide';
import { PrimeTemplate } from 'primeng/api';
import type { TreeNode } from 'primeng/api';
import { TreeModule } from 'primeng/tree';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { SharedShelf, ShareInfo, ShelfInfo } from '../store/shapes';
import { addressOf } from './place';
import type { LibraryPlace } from './place';

/** A place on a shelf. */
type ShelfPlace = Exclude<LibraryPlace, { kind: 'bin' }>;

/** Where a line of the tree leads, and its picture. */
type PlaceNode = TreeNode<{ readonly place: LibraryPlace; readonly icon: IconNode }>;

/** Folders as they lie in one another: one's own, those that others share, and the bin. */
@Component({
  selector: 'cua-folder-tree',
  imports: [Icon, PrimeTemplate, Tip, TreeModule],
  templateUrl: './folder-tree.html',
  styleUrl: './folder-tree.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FolderTree {
  readonly own = input.required<ShelfInfo>();
  readonly shared = input.required<readonly SharedShelf[]>();
  readonly shares = input.required<ReadonlyMap<Id, readonly ShareInfo[]>>();
  readonly binned = input.required<number>();
  readonly place = input.required<LibraryPlace>();
  readonly chosen = output<LibraryPlace>();
  /** Things or files were let go over a folder or the bin. */
  readonly dropped = output<{ event: DragEvent; place: LibraryPlace }>();

  /** The line over which something is carried. */
  protected readonly over = signal<string | null>(null);
  /** Folders whose insides aren't shown. */
  private readonly folded = signal<ReadonlySet<string>>(new Set());
  protected readonly here = computed<TreeNode>(() => ({ key: keyOf(this.place()) }));

  protected readonly nodes = computed<PlaceNode[]>(() => [
    this.shelf({ kind: 'own', folder: null }, 'My materials', FolderOpen, this.own()),
    ...this.shared().map((shelf) =>
      this.shelf(
        { kind: 'shared', owner: shelf.owner.id, folder: null },
        `From ${shelf.owner.name}`,
        UserRound,
        shelf,
      ),
    ),
    this.node({ kind: 'bin' }, this.binned() > 0 ? `Bin (${this.binned()})` : 'Bin', Trash2, []),
  ]);

  protected readonly byKey = (_index: number, { key }: TreeNode): string | undefined => key;

  protected go({ data }: PlaceNode): void {
    if (data) this.chosen.emit(data.place);
  }

  protected fold({ key }: TreeNode, away: boolean): void {
    this.folded.update((keys) => {
      const next = new Set(keys);
      if (away) next.add(key!);
      else next.delete(key!);
      return next;
    });
  }

  protected drag(event: DragEvent, { key, data }: PlaceNode): void {
    if (!data || data.place.kind === 'shared') return;
    event.preventDefault();
    // The tree would refuse what isn't a node of its own.
    event.stopPropagation();
    this.over.set(key!);
  }

  protected drop(event: DragEvent, { data }: PlaceNode): void {
    this.over.set(null);
    if (!data || data.place.kind === 'shared') return;
    this.dropped.emit({ event, place: data.place });
  }

  private shelf(place: ShelfPlace, label: string, icon: IconNode, shelf: ShelfInfo): PlaceNode {
    const inside = (branches: readonly Branch[]): PlaceNode[] =>
      branches.map(({ folder: { id, name }, branches: further }) => {
        const sign = this.shares().has(id) ? UsersRound : FolderIcon;
        return this.node({ ...place, folder: id }, name, sign, inside(further));
      });
    return this.node(place, label, icon, inside(treeOf(shelf.folders)));
  }

  private node(
    place: LibraryPlace,
    label: string,
    icon: IconNode,
    children: PlaceNode[],
  ): PlaceNode {
    const key = keyOf(place);
    const leaf = children.length === 0;
    return { key, label, data: { place, icon }, children, leaf, expanded: !this.folded().has(key) };
  }
}

function keyOf(place: LibraryPlace): string {
  return addressOf(place) ?? 'top';
}
