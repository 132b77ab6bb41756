import type { Id } from '@cuaderno/core/id';
import type { BoardSession } from '../../live/board-session';
import { isInSidePanel } from '../../ui/popup/modal';
import type { Abilities } from '../editing/abilities';
import type { CoverSheets } from '../editing/cover-sheets';
import type { PageWriting } from '../editing/page-writing';
import type { Stage } from '../stage/stage';
import type { Tool, Tools } from '../tool/tool';
import { arrangeByKey } from './arrange-keys';
import type { ByKey } from './arrange-keys';
import { toolByKey } from './shortcuts';

/** What keys work on, at the moment. */
export interface KeyWork {
  session(): BoardSession;
  stage(): Stage;
  /** The page in view. */
  page(): Id | null;
  /** Cover sheets, where this person lays them. */
  covers(): CoverSheets | undefined;
  lightOff(): void;
}

/** Keys of a board: pages are turned, what is chosen is arranged, tools are taken, what was done is undone. */
export class WorkKeys {
  constructor(
    private readonly work: KeyWork,
    private readonly tools: Tools,
    private readonly abilities: Abilities,
    private readonly writing: PageWriting,
    private readonly byKey: ByKey,
  ) {}

  /** Does what a key asks for that is meant for the board. */
  press(event: KeyboardEvent): void {
    if (this.writing.takes(event) || this.turns(event)) return event.preventDefault();
    if (isInSidePanel(event.target)) return;
    const arranged = this.abilities.write() && arrangeByKey(event, this.byKey);
    if (arranged) return event.preventDefault();
    const commands = event.ctrlKey || event.metaKey;
    if (commands && !event.altKey) return this.undoOrRedo(event);
    const key = event.key.toLowerCase();
    const lit = this.work.session().features.pointing.shown().lamp !== null;
    if (key === 'escape' && lit && this.abilities.light()) return this.work.lightOff();
    const plain = !event.altKey && !event.shiftKey;
    const covers = this.work.covers();
    if (key === 'o' && plain && covers) return covers.flip();
    if (toolByKey(event, this.tools, (tool) => this.isUsable(tool))) event.preventDefault();
  }

  private turns(event: KeyboardEvent): boolean {
    const key = event.key.toLowerCase();
    if (key !== 'pageup' && key !== 'pagedown') return false;
    // Whatever has the focus; the stage has turned already where it has.
    if (!event.defaultPrevented) this.work.stage().view.turn(key === 'pageup' ? -1 : 1);
    return true;
  }

  private undoOrRedo(event: KeyboardEvent): void {
    const key = event.key.toLowerCase();
    if (key !== 'z' && key !== 'y') return;
    event.preventDefault();
    if (key === 'y' || event.shiftKey) this.work.session().redo();
    else this.work.session().undo();
  }

  private isUsable(tool: Tool): boolean {
    if (tool === 'hand') return true;
    if (tool === 'pointer') return this.abilities.pointOn()(this.work.page() ?? '');
    return tool === 'lamp' ? this.abilities.light() : this.abilities.write();
  }
}
