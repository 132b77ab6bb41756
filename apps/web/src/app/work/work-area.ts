import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  HostListener,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { Id, Item, Problem } from '@cuaderno/core';
import { Maximize, MoveHorizontal, ZoomIn, ZoomOut } from 'lucide';
import { switchMap } from 'rxjs';
import { Icon } from '../icons/icon';
import type { BoardSession } from '../live/board-session';
import { LineNotice } from '../notice/line-notice';
import { FULL_SIZE } from '../stage/camera';
import type { PaperSource } from '../stage/paper-source';
import { Stage } from '../stage/stage';
import type { Erased, FinishedStroke, StrokePiece } from '../stage/writing';
import { ToolDock } from '../tools/tool-dock';
import { Tools } from '../tools/tool';
import type { Tool } from '../tools/tool';

/** How long what the server would not take is shown, in ms. */
const TROUBLE_SHOWN = 6000;

const KEYS: Record<string, Tool> = { p: 'pen', h: 'highlighter', e: 'eraser', m: 'hand' };

/**
 * A board with its tools: the stage in the middle, the tools docked beside it. What is done on the
 * stage becomes operations of the session here, and nowhere else.
 */
@Component({
  selector: 'cua-work-area',
  imports: [Icon, LineNotice, Stage, ToolDock],
  templateUrl: './work-area.html',
  styleUrl: './work-area.scss',
  host: { '[class.right]': "tools.side() === 'right'" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorkArea {
  readonly session = input.required<BoardSession>();
  readonly papers = input.required<PaperSource>();
  readonly page = output<Id>();

  protected readonly tools = new Tools();
  protected readonly icons = { Maximize, MoveHorizontal, ZoomIn, ZoomOut };
  private readonly stage = viewChild.required(Stage);
  protected readonly percent = computed(() =>
    Math.round(((this.stage().zoom() ?? FULL_SIZE) / FULL_SIZE) * 100),
  );
  protected readonly trouble = signal<Problem | null>(null);
  protected readonly mayErase = computed(() => {
    const role = this.session().role();
    const me = this.session().me();
    return (item: Item): boolean => role === 'tutor' || item.by === me;
  });
  private began = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    toObservable(this.session)
      .pipe(
        switchMap((session) => session.liveInk),
        takeUntilDestroyed(),
      )
      .subscribe((event) => this.stage().take(event));
    effect(() => {
      const page = this.session().startPage();
      if (!this.session().ready() || !page || this.began) return;
      this.began = true;
      untracked(() => this.stage().goTo(page));
    });
    effect(() => {
      const problem = this.session().problem();
      if (!problem) return;
      this.trouble.set(problem);
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.trouble.set(null), TROUBLE_SHOWN);
    });
  }

  goTo(page: Id): void {
    this.stage().goTo(page);
  }

  protected drawn({ id, page, ink }: FinishedStroke): void {
    this.session().do({ id, kind: 'ink.add', page, ink });
  }

  protected piece({ stroke, start, points }: StrokePiece): void {
    this.session().sendInk(stroke, start, points);
  }

  protected erased({ page, items, gesture }: Erased): void {
    this.session().do({ kind: 'items.remove', page, items }, gesture);
  }

  protected shown(page: Id): void {
    this.session().look(page);
    this.page.emit(page);
  }

  protected zoom(factor: number): void {
    this.stage().zoomBy(factor);
  }

  protected fullSize(): void {
    this.stage().zoomTo(FULL_SIZE);
  }

  protected fitWidth(): void {
    this.stage().fitWidth();
  }

  protected fitPage(): void {
    this.stage().fitPage();
  }

  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    const at = event.target as HTMLElement;
    if (at.closest('input, select, textarea, [contenteditable], dialog, [role=dialog]')) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && !event.altKey) {
      if (key === 'z' || key === 'y') {
        event.preventDefault();
        if (key === 'y' || event.shiftKey) this.session().redo();
        else this.session().undo();
      }
      return;
    }
    const tool = KEYS[key];
    if (tool && !event.altKey) this.tools.tool.set(tool);
  }
}
