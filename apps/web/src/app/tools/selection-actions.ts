import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Item } from '@cuaderno/core';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalDistributeCenter,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalDistributeCenter,
  ArrowDown,
  ArrowLeft,
  ArrowRight,
  ArrowUp,
  BringToFront,
  Check,
  ClipboardCopy,
  CopyPlus,
  Crop,
  Expand,
  Eye,
  EyeOff,
  Fullscreen,
  Group,
  Pin,
  PinOff,
  RotateCcw,
  RotateCw,
  ScanLine,
  SendToBack,
  Shrink,
  Trash2,
  Ungroup,
  WandSparkles,
} from 'lucide';
import { Icon } from '../icons/icon';
import type { Deed } from '../work/arranging';

/** How far a button moves, in points; by how much it sizes; and turns, in degrees. */
const MOVE = 10;
const SIZE = 1.1;
const TURN = 15;

interface Action {
  readonly label: string;
  readonly key?: string;
  readonly icon: typeof Pin;
  readonly deed: Deed;
  readonly off?: boolean;
}

/** What can be done with what is chosen: in the dock, beside the page and never over it. */
@Component({
  selector: 'cua-selection-actions',
  imports: [Icon],
  template: `
    <p class="count" role="status">{{ words() }}</p>
    @for (action of actions(); track action.label) {
      <button
        type="button"
        [attr.aria-label]="action.label"
        [title]="action.label + (action.key ? ' (' + action.key + ')' : '')"
        [disabled]="action.off"
        (click)="deed.emit(action.deed)"
      >
        <cua-icon [of]="action.icon" [size]="20" />
      </button>
    }
  `,
  styleUrl: './selection-actions.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SelectionActions {
  readonly items = input.required<readonly Item[]>();
  readonly cropping = input(false);
  /** Whether this person lays material on pages; others have what one does with one's own writing. */
  readonly arranges = input(true);
  readonly mayRemove = input(true);
  readonly deed = output<Deed>();

  protected readonly words = computed(() => {
    const count = this.items().length;
    return count === 1 ? '1 thing chosen' : `${count} things chosen`;
  });

  protected readonly actions = computed<Action[]>(() => {
    const items = this.items();
    const things = items.filter((item) => item.kind !== 'ink');
    const fixed = things.length > 0 && things.every((thing) => thing.fixed);
    const held = things.length > 0 && things.every((thing) => thing.held);
    const grouped = things.some((thing) => thing.group);
    const anyFixed = things.some((thing) => thing.fixed);
    const few = items.length < 2 || anyFixed;
    const none = things.length === 0;
    const [only] = items;
    const picture = items.length === 1 && only?.kind === 'picture' && !only.fixed ? only : null;
    const inks = items.some((item) => item.kind === 'ink');
    const own: Action[] = [
      {
        label: 'Duplicate',
        key: 'Ctrl+D',
        icon: CopyPlus,
        off: !this.mayRemove(),
        deed: { kind: 'duplicate' },
      },
      { label: 'Copy as a picture', icon: ClipboardCopy, deed: { kind: 'picture' } },
      {
        label: 'Remove',
        key: 'Delete',
        icon: Trash2,
        off: !this.mayRemove(),
        deed: { kind: 'remove' },
      },
    ];
    const move = (
      label: string,
      key: string,
      icon: typeof Pin,
      dx: number,
      dy: number,
    ): Action => ({
      ...{ label, key, icon, off: anyFixed },
      deed: { kind: 'move', dx: dx * MOVE, dy: dy * MOVE },
    });
    // What a drag does, for who can't drag (WCAG 2.2, 2.5.7).
    const place: Action[] = [
      move('Move left', 'Shift+←', ArrowLeft, -1, 0),
      move('Move right', 'Shift+→', ArrowRight, 1, 0),
      move('Move up', 'Shift+↑', ArrowUp, 0, -1),
      move('Move down', 'Shift+↓', ArrowDown, 0, 1),
      { label: 'Larger', icon: Expand, off: anyFixed, deed: { kind: 'size', by: SIZE } },
      { label: 'Smaller', icon: Shrink, off: anyFixed, deed: { kind: 'size', by: 1 / SIZE } },
      { label: 'Turn left', icon: RotateCcw, off: anyFixed, deed: { kind: 'turn', by: -TURN } },
      { label: 'Turn right', icon: RotateCw, off: anyFixed, deed: { kind: 'turn', by: TURN } },
    ];
    const tidy: Action[] = inks
      ? [
          {
            label: 'Tidy: make a true line, box or ellipse of it',
            icon: WandSparkles,
            deed: { kind: 'tidy' },
          },
        ]
      : [];
    if (!this.arranges()) return [...own, ...place, ...tidy];
    return [
      held
        ? { label: 'Show it to students', icon: Eye, deed: { kind: 'hold', held: false } }
        : {
            label: 'Hold back until its moment',
            icon: EyeOff,
            off: none,
            deed: { kind: 'hold', held: true },
          },
      fixed
        ? { label: 'Loosen', icon: PinOff, deed: { kind: 'fix', fixed: false } }
        : { label: 'Fix in place', icon: Pin, off: none, deed: { kind: 'fix', fixed: true } },
      ...own,
      ...place,
      {
        label: 'Bring to the front',
        key: 'Ctrl+]',
        icon: BringToFront,
        off: none,
        deed: { kind: 'order', where: 'front' },
      },
      {
        label: 'Put at the back',
        key: 'Ctrl+[',
        icon: SendToBack,
        off: none,
        deed: { kind: 'order', where: 'back' },
      },
      {
        label: 'Group',
        key: 'Ctrl+G',
        icon: Group,
        off: things.length < 2,
        deed: { kind: 'group', together: true },
      },
      {
        label: 'Break the group up',
        key: 'Ctrl+Shift+G',
        icon: Ungroup,
        off: !grouped,
        deed: { kind: 'group', together: false },
      },
      {
        label: 'Line up at the left',
        icon: AlignStartVertical,
        off: few,
        deed: { kind: 'align', edge: 'left' },
      },
      {
        label: 'Line up upright middles',
        icon: AlignCenterVertical,
        off: few,
        deed: { kind: 'align', edge: 'middle' },
      },
      {
        label: 'Line up at the right',
        icon: AlignEndVertical,
        off: few,
        deed: { kind: 'align', edge: 'right' },
      },
      {
        label: 'Same space across',
        icon: AlignHorizontalDistributeCenter,
        off: few || items.length < 3,
        deed: { kind: 'distribute', along: 'across' },
      },
      {
        label: 'Line up at the top',
        icon: AlignStartHorizontal,
        off: few,
        deed: { kind: 'align', edge: 'top' },
      },
      {
        label: 'Line up level middles',
        icon: AlignCenterHorizontal,
        off: few,
        deed: { kind: 'align', edge: 'centre' },
      },
      {
        label: 'Line up at the bottom',
        icon: AlignEndHorizontal,
        off: few,
        deed: { kind: 'align', edge: 'bottom' },
      },
      {
        label: 'Same space down',
        icon: AlignVerticalDistributeCenter,
        off: few || items.length < 3,
        deed: { kind: 'distribute', along: 'down' },
      },
      ...(picture
        ? [
            this.cropping()
              ? {
                  label: 'That is how it stays',
                  icon: Check,
                  deed: { kind: 'crop', on: false } as const,
                }
              : {
                  label: 'Crop: draw its sides in',
                  icon: Crop,
                  deed: { kind: 'crop', on: true } as const,
                },
            {
              label: 'Straighten a scan and cut it to its paper',
              icon: ScanLine,
              deed: { kind: 'straighten' } as const,
            },
            {
              label: 'The whole picture again',
              icon: Fullscreen,
              off: !picture.crop,
              deed: { kind: 'uncrop' } as const,
            },
          ]
        : []),
      ...tidy,
    ];
  });
}
