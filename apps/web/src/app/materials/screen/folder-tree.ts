import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { treeOf } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import type { Branch } from '@cuaderno/core/materials';
import {
  ChevronDown,
  ChevronRight,
  Folder as FolderIcon,
  FolderOpen,
  Trash2,
  UserRound,
  UsersRound,
} from 'lucide';
import type { IconNode } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { SharedShelf, ShareInfo, ShelfInfo } from '../store/shapes';
import { addressOf } from './place';
import type { LibraryPlace } from './place';

/** A place on a shelf. */
type ShelfPlace = Exclude<LibraryPlace, { kind: 'bin' }>;

/** A line of the tree, and what it leads to. */
interface TreeLine {
  readonly key: string;
  readonly label: string;
  readonly depth: number;
  readonly place: LibraryPlace;
  readonly icon: IconNode;
  /** Whether other folders lie in it. */
  readonly holds: boolean;
}

/** Folders as they lie in one another: one's own, those that others share, and the bin. */
@Component({
  selector: 'cua-folder-tree',
  imports: [Icon, Tip],
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

  protected readonly icons = { ChevronDown, ChevronRight };
  /** The line over which something is carried. */
  protected readonly over = signal<string | null>(null);
  /** Folders whose insides aren't shown. */
  protected readonly folded = signal<ReadonlySet<string>>(new Set());
  protected readonly here = computed(() => keyOf(this.place()));

  protected readonly lines = computed<TreeLine[]>(() => [
    ...this.shelf({ kind: 'own', folder: null }, 'My materials', FolderOpen, this.own()),
    ...this.shared().flatMap((shelf) =>
      this.shelf(
        { kind: 'shared', owner: shelf.owner.id, folder: null },
        `From ${shelf.owner.name}`,
        UserRound,
        shelf,
      ),
    ),
    {
      key: keyOf({ kind: 'bin' }),
      label: this.binned() > 0 ? `Bin (${this.binned()})` : 'Bin',
      depth: 0,
      place: { kind: 'bin' },
      icon: Trash2,
      holds: false,
    },
  ]);

  protected fold(key: string): void {
    this.folded.update((keys) => {
      const next = new Set(keys);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }

  protected drag(event: DragEvent, line: TreeLine): void {
    if (line.place.kind === 'shared') return;
    event.preventDefault();
    this.over.set(line.key);
  }

  protected drop(event: DragEvent, line: TreeLine): void {
    this.over.set(null);
    if (line.place.kind === 'shared') return;
    this.dropped.emit({ event, place: line.place });
  }

  /** Lines of a shelf that aren't folded away. */
  private shelf(place: ShelfPlace, label: string, icon: IconNode, shelf: ShelfInfo): TreeLine[] {
    const lines = (branches: readonly Branch[], depth: number): TreeLine[] =>
      branches.flatMap(({ folder: { id, name }, branches: inside }) => {
        const sign = this.shares().has(id) ? UsersRound : FolderIcon;
        return this.line({ ...place, folder: id }, name, sign, depth, inside, lines);
      });
    return this.line(place, label, icon, 0, treeOf(shelf.folders), lines);
  }

  private line(
    place: ShelfPlace,
    label: string,
    icon: IconNode,
    depth: number,
    inside: readonly Branch[],
    lines: (branches: readonly Branch[], depth: number) => TreeLine[],
  ): TreeLine[] {
    const key = keyOf(place);
    const line = { key, label, depth, place, icon, holds: inside.length > 0 };
    return [line, ...(this.folded().has(key) ? [] : lines(inside, depth + 1))];
  }
}

function keyOf(place: LibraryPlace): string {
  return addressOf(place) ?? 'top';
}
