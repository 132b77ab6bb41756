import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { FolderOpen, GalleryVertical, MessagesSquare, NotebookText, Search, Users } from 'lucide';
import type { IconNode } from 'lucide';
import { Shortcuts } from '../../board/shortcuts/shortcuts';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { BesideBoard } from './beside-board';
import type { Beside } from './beside-board';

interface Choice {
  readonly name: Beside;
  readonly label: string;
  readonly tip: string;
  readonly icon: IconNode;
}

const LESSON: readonly Choice[] = [
  { name: 'people', label: 'People', tip: 'Who is here, and their pens', icon: Users },
  { name: 'chat', label: 'Chat', tip: 'What is written in this lesson', icon: MessagesSquare },
];
const BOARD: readonly Choice[] = [
  {
    name: 'notes',
    label: 'Private notes',
    tip: 'Private notes beside the page; no student is sent them',
    icon: NotebookText,
  },
  {
    name: 'materials',
    label: 'Materials',
    tip: 'Your files, to lay them on pages',
    icon: FolderOpen,
  },
  {
    name: 'find',
    label: 'Find on this board',
    tip: 'Find on this board',
    icon: Search,
  },
];

/** What waits in the column, whatever of it is open. */
export interface Waiting {
  /** Who is at the door. */
  readonly door: number;
  readonly hands: number;
  /** Messages that weren't read yet. */
  readonly messages: number;
}

/**
 * The column beside the page: one thing at a time, the class, the chat, private notes, materials, finding. The one that is
 * pressed again folds it to a rail, which counts who is at the door, hands and messages. What was open is found so
 * next time. First in it is what is needed in one second.
 */
@Component({
  selector: 'cua-beside-column',
  imports: [Icon, Tip],
  template: `
    <ng-content select="[first]" />
    <div
      class="choices"
      role="toolbar"
      aria-label="Beside the page"
      [attr.aria-orientation]="beside.open() === null ? 'vertical' : 'horizontal'"
    >
      @for (one of choices(); track one.name) {
        <button
          type="button"
          [attr.aria-label]="one.said"
          [cuaTip]="one.tip"
          [attr.aria-pressed]="beside.open() === one.name"
          (click)="beside.toggle(one.name)"
        >
          <cua-icon [of]="one.icon" [size]="20" />
          @if (one.count > 0) {
            <span class="count">{{ one.count }}</span>
          }
        </button>
      }
      <button
        type="button"
        class="pictures"
        aria-label="Page pictures"
        cuaTip="Pictures of all pages"
        [attr.aria-pressed]="beside.pages()"
        (click)="beside.togglePages()"
      >
        <cua-icon [of]="icons.GalleryVertical" [size]="20" />
      </button>
      <ng-content select="[last]" />
    </div>
    <div class="content" [class.folded]="beside.open() === null">
      <ng-content />
    </div>
  `,
  styleUrl: './beside-column.scss',
  host: {
    '[class.folded]': 'beside.open() === null',
    '[class.wide]': "beside.open() === 'notes' || beside.open() === 'materials'",
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BesideColumn {
  readonly waiting = input<Waiting>({ door: 0, hands: 0, messages: 0 });
  /** Whether it has what is the tutor's own: private notes and materials. */
  readonly ofTutor = input(true);
  private readonly shortcuts = inject(Shortcuts);
  protected readonly icons = { GalleryVertical };
  protected readonly beside = inject(BesideBoard);
  protected readonly choices = computed(() => {
    const { door, hands, messages } = this.waiting();
    const board = BOARD.filter(({ name }) => this.ofTutor() || name === 'find');
    const all = [...(this.beside.inLesson() ? LESSON : []), ...board];
    return all.map((one) => {
      const counts =
        one.name === 'people'
          ? [door > 0 ? `${door} waiting` : '', hands > 0 ? `${hands} hands` : '']
          : one.name === 'chat' && messages > 0
            ? [`${messages} unread`]
            : [];
      return {
        ...one,
        tip: one.name === 'find' ? this.shortcuts.tip(one.tip, 'find') : one.tip,
        count: one.name === 'people' ? door + hands : one.name === 'chat' ? messages : 0,
        said: [one.label, ...counts.filter(Boolean)].join(', '),
      };
    });
  });
}
