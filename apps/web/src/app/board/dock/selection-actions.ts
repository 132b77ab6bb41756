import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { spokenItem } from '@cuaderno/core/kinds';
import type { Item } from '@cuaderno/core/board';
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
  Captions,
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
import { Icon } from '../../ui/icons/icon';
import { Popup } from '../../ui/popup/popup';
import { Tip } from '../../ui/tip/tip';
import type { SelectionCommand } from '../editing/arranging';

/** How far a button moves, in points; by how much it sizes; and turns, in degrees. */
const MOVE = 10;
const SIZE = 1.1;
const TURN = 15;

interface Action {
  readonly label: string;
  readonly key?: string;
  readonly icon: typeof Pin;
  readonly command: SelectionCommand;
  readonly off?: boolean;
}

/**
 * What can be done with what is chosen: in the bar below the page. Where it lies, how large it is and how it is lined up
 * is in a popup of its own, which stays open while one button after the other is pressed.
 */
@Component({
  selector: 'cua-selection-actions',
  imports: [Icon, NgTemplateOutlet, Popup, Tip],
  template: `
    <p class="count" role="status">
      {{ words() }}<span class="unseen">{{ spoken() }}</span>
    </p>
    <ng-container [ngTemplateOutlet]="buttons" [ngTemplateOutletContext]="{ of: actions() }" />
    <button type="button" class="more" aria-haspopup="dialog" (click)="more.toggle($event)">
      Arrange …
    </button>
    <cua-popup #more label="Arrange">
      <div class="arranging">
        <ng-container
          [ngTemplateOutlet]="buttons"
          [ngTemplateOutletContext]="{ of: arranging() }"
        />
      </div>
    </cua-popup>
    <ng-template #buttons let-actions="of">
      @for (action of $any(actions); track action.label) {
        <button
          type="button"
          [attr.aria-label]="action.label"
          [cuaTip]="action.label + (action.key ? ' (' + action.key + ')' : '')"
          [disabled]="action.off"
          (click)="selectionCommand.emit(action.command)"
        >
          <cua-icon [of]="action.icon" [size]="20" />
        </button>
      }
    </ng-template>
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
  readonly selectionCommand = output<SelectionCommand>();

  protected readonly words = computed(() => {
    const count = this.items().length;
    return count === 1 ? '1 thing chosen' : `${count} things chosen`;
  });

  /** What is chosen, for who can't see it. */
  protected readonly spoken = computed(() => {
    const [only] = this.items();
    return this.items().length === 1 && only && only.kind !== 'ink' ? `: ${spokenItem(only)}` : '';
  });

  private readonly all = computed<{ readonly first: Action[]; readonly arranging: Action[] }>(
    () => {
      const items = this.items();
      const placed = items.filter((item) => item.kind !== 'ink');
      const fixed = placed.length > 0 && placed.every((one) => one.fixed);
      const hidden = placed.length > 0 && placed.every((one) => one.hidden);
      const grouped = placed.some((one) => one.group);
      const anyFixed = placed.some((one) => one.fixed);
      const few = items.length < 2 || anyFixed;
      const none = placed.length === 0;
      const [only] = items;
      const picture = items.length === 1 && only?.kind === 'picture' && !only.fixed ? only : null;
      const inks = items.some((item) => item.kind === 'ink');
      const own: Action[] = [
        {
          label: 'Duplicate',
          key: 'Ctrl+D',
          icon: CopyPlus,
          off: !this.mayRemove(),
          command: { kind: 'duplicate' },
        },
        {
          label: 'Remove',
          key: 'Delete',
          icon: Trash2,
          off: !this.mayRemove(),
          command: { kind: 'remove' },
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
        command: { kind: 'move', dx: dx * MOVE, dy: dy * MOVE },
      });
      // What a drag does, for who can't drag (WCAG 2.2, 2.5.7).
      const place: Action[] = [
        move('Move left', 'Shift+←', ArrowLeft, -1, 0),
        move('Move right', 'Shift+→', ArrowRight, 1, 0),
        move('Move up', 'Shift+↑', ArrowUp, 0, -1),
        move('Move down', 'Shift+↓', ArrowDown, 0, 1),
        { label: 'Larger', icon: Expand, off: anyFixed, command: { kind: 'size', by: SIZE } },
        { label: 'Smaller', icon: Shrink, off: anyFixed, command: { kind: 'size', by: 1 / SIZE } },
        {
          label: 'Turn left',
          icon: RotateCcw,
          off: anyFixed,
          command: { kind: 'turn', by: -TURN },
        },
        { label: 'Turn right', icon: RotateCw, off: anyFixed, command: { kind: 'turn', by: TURN } },
      ];
      const tidy: Action[] = inks
        ? [
            {
              label: 'Tidy: make a true line, box or ellipse of it',
              icon: WandSparkles,
              command: { kind: 'recognize' },
            },
          ]
        : [];
      const further: Action[] = [
        { label: 'Copy as a picture', icon: ClipboardCopy, command: { kind: 'picture' } },
        ...tidy,
      ];
      if (!this.arranges()) return { first: own, arranging: [...place, ...further] };
      const first: Action[] = [
        hidden
          ? { label: 'Show it to students', icon: Eye, command: { kind: 'hide', hidden: false } }
          : {
              label: 'Hide until its moment',
              icon: EyeOff,
              off: none,
              command: { kind: 'hide', hidden: true },
            },
        fixed
          ? { label: 'Loosen', icon: PinOff, command: { kind: 'fix', fixed: false } }
          : { label: 'Fix in place', icon: Pin, off: none, command: { kind: 'fix', fixed: true } },
        ...own,
        ...(picture
          ? [
              this.cropping()
                ? {
                    label: 'Keep it like this',
                    icon: Check,
                    command: { kind: 'crop', on: false } as const,
                  }
                : {
                    label: 'Crop: draw its sides in',
                    icon: Crop,
                    command: { kind: 'crop', on: true } as const,
                  },
              {
                label: 'Straighten a scan and cut it to its paper',
                icon: ScanLine,
                command: { kind: 'straighten' } as const,
              },
              {
                label: 'Describe it for who can’t see it',
                icon: Captions,
                command: { kind: 'describe' } as const,
              },
              {
                label: 'The whole picture again',
                icon: Fullscreen,
                off: !picture.crop,
                command: { kind: 'uncrop' } as const,
              },
            ]
          : []),
      ];
      const arranging: Action[] = [
        ...place,
        ...further,
        {
          label: 'Bring to the front',
          key: 'Ctrl+]',
          icon: BringToFront,
          off: none,
          command: { kind: 'order', where: 'front' },
        },
        {
          label: 'Put at the back',
          key: 'Ctrl+[',
          icon: SendToBack,
          off: none,
          command: { kind: 'order', where: 'back' },
        },
        {
          label: 'Group',
          key: 'Ctrl+G',
          icon: Group,
          off: placed.length < 2,
          command: { kind: 'group', together: true },
        },
        {
          label: 'Ungroup',
          key: 'Ctrl+Shift+G',
          icon: Ungroup,
          off: !grouped,
          command: { kind: 'group', together: false },
        },
        {
          label: 'Line up at the left',
          icon: AlignStartVertical,
          off: few,
          command: { kind: 'align', edge: 'left' },
        },
        {
          label: 'Line up upright middles',
          icon: AlignCenterVertical,
          off: few,
          command: { kind: 'align', edge: 'middle' },
        },
        {
          label: 'Line up at the right',
          icon: AlignEndVertical,
          off: few,
          command: { kind: 'align', edge: 'right' },
        },
        {
          label: 'Same space across',
          icon: AlignHorizontalDistributeCenter,
          off: few || items.length < 3,
          command: { kind: 'distribute', along: 'across' },
        },
        {
          label: 'Line up at the top',
          icon: AlignStartHorizontal,
          off: few,
          command: { kind: 'align', edge: 'top' },
        },
        {
          label: 'Line up level middles',
          icon: AlignCenterHorizontal,
          off: few,
          command: { kind: 'align', edge: 'centre' },
        },
        {
          label: 'Line up at the bottom',
          icon: AlignEndHorizontal,
          off: few,
          command: { kind: 'align', edge: 'bottom' },
        },
        {
          label: 'Same space down',
          icon: AlignVerticalDistributeCenter,
          off: few || items.length < 3,
          command: { kind: 'distribute', along: 'down' },
        },
      ];
      return { first, arranging };
    },
  );
  protected readonly actions = computed(() => this.all().first);
  protected readonly arranging = computed(() => this.all().arranging);
}
