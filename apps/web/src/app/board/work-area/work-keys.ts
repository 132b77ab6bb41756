import type { WritableSignal } from '@angular/core';
import type { Id } from '@cuaderno/core/id';
import type { BoardSession } from '../../live/board-session';
import { isInSidePanel } from '../../ui/popup/modal';
import type { Abilities } from '../editing/abilities';
import type { CoverSheets } from '../editing/cover-sheets';
import type { PageWriting } from '../editing/page-writing';
import type { Shortcuts } from '../shortcuts/shortcuts';
import type { Command } from '../shortcuts/table';
import { ZOOM_STEP } from '../stage/camera';
import type { Stage } from '../stage/stage';
import type { Tool, Tools } from '../tool/tool';
import { arrangeByKey } from './arrange-keys';
import type { ByKey } from './arrange-keys';
import { toolByKey } from './tool-keys';

/** What keys work on, at the moment. */
export interface KeyWork {
  session(): BoardSession;
  stage(): Stage;
  /** The page in view. */
  page(): Id | null;
  /** Cover sheets, where this person lays them. */
  covers(): CoverSheets | undefined;
  lightOff(): void;
  /** Whether there is only the page in the window, and few tools. */
  readonly pageOnly: WritableSignal<boolean>;
  /** The list of all keys is asked for. */
  showShortcuts(): void;
}

/** Keys of a board: pages are turned, what is chosen is arranged, tools are taken, what was done is undone. */
export class WorkKeys {
  constructor(
    private readonly work: KeyWork,
    private readonly shortcuts: Pick<Shortcuts, 'asks'>,
    private readonly tools: Tools,
    private readonly abilities: Abilities,
    private readonly writing: PageWriting,
    private readonly byKey: ByKey,
  ) {}

  /** Does what a key asks for that is meant for the board. */
  press(event: KeyboardEvent): void {
    const asks = (command: Command): boolean => this.shortcuts.asks(event, command);
    if (this.writing.takes(event) || this.turns(event, asks)) return event.preventDefault();
    if (isInSidePanel(event.target)) return;
    const arranged = this.abilities.write() && arrangeByKey(event, asks, this.byKey);
    if (arranged || this.does(asks) || (!event.defaultPrevented && this.zooms(asks)))
      event.preventDefault();
  }

  private does(asks: (command: Command) => boolean): boolean {
    const { work } = this;
    if (asks('undo')) work.session().undo();
    else if (asks('redo')) work.session().redo();
    else if (asks('let-go')) return this.ends();
    else if (asks('page-only')) work.pageOnly.update((only) => !only);
    else if (asks('microphone')) {
      // Who watches listens.
      if (work.session().role() === 'watcher') return false;
      void work.session().features.media.toggle();
    } else if (asks('shortcuts')) work.showShortcuts();
    else if (asks('cover')) {
      const covers = work.covers();
      covers?.flip();
      return covers !== undefined;
    } else return toolByKey(asks, this.tools, (tool) => this.isUsable(tool));
    return true;
  }

  /** What Escape ends where nothing is selected: the lamp, then that there is only the page. */
  private ends(): boolean {
    const { work } = this;
    const lit = work.session().features.pointing.shown().lamp !== null;
    if (lit && this.abilities.light()) work.lightOff();
    else if (work.pageOnly()) work.pageOnly.set(false);
    else return false;
    return true;
  }

  /** Whatever has the focus; the stage has turned already where it has. */
  private turns(event: KeyboardEvent, asks: (command: Command) => boolean): boolean {
    const by = asks('page-before') ? -1 : asks('page-after') ? 1 : 0;
    if (by !== 0 && !event.defaultPrevented) this.work.stage().view.turn(by);
    return by !== 0;
  }

  /** Whatever has the focus, too. */
  private zooms(asks: (command: Command) => boolean): boolean {
    const { view } = this.work.stage();
    if (asks('zoom-in')) view.zoomBy(ZOOM_STEP);
    else if (asks('zoom-out')) view.zoomBy(1 / ZOOM_STEP);
    else if (asks('fit-width')) view.fitWidth();
    else if (asks('fit-page')) view.fitPage();
    else return false;
    return true;
  }

  private isUsable(tool: Tool): boolean {
    if (tool === 'hand') return true;
    if (tool === 'pointer') return this.abilities.pointOn()(this.work.page() ?? '');
    return tool === 'lamp' ? this.abilities.light() : this.abilities.write();
  }
}
