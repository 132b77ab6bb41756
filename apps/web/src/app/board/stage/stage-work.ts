import type { Item } from '@cuaderno/core/board';
import type { Lamp, Place } from '@cuaderno/core/features';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { InkStyle } from '@cuaderno/core/ink';
import type { Drawn } from '../kinds/drawn';
import type { Laid } from '../kinds/kind';
import type { Tool } from '../tool/tool';
import type { FingerUse } from './finger-use';
import type { DragPreview } from './pointer-tool';
import type { Cut } from './rubbing';
import type { Selection } from './selecting';
import type { Erased, FinishedStroke, StrokePiece } from './writing';

/** What the person at the stage may do. The server asks once more for each operation. */
export interface StageAbilities {
  mayWriteOn(): (page: Id) => boolean;
  mayErase(): (item: Item) => boolean;
  /** Whether they may choose an item, to change it. */
  mayChange(): (item: Item) => boolean;
  mayPointOn(): (page: Id) => boolean;
  /** Whether they may light the lamp, and move it. */
  mayLight(): boolean;
  /** The only page that is laid out, where they don't turn pages alone. */
  only(): Id | null;
}

/** What they have in hand. */
export interface StageTools {
  tool(): Tool;
  /** How the next line is drawn. */
  style(): InkStyle;
  /** Whether the eraser takes parts of lines. */
  rubs(): boolean;
  /** Whether a drag over nothing draws a lasso, and not a box. */
  lasso(): boolean;
  /** Whether the pointer leaves an arrow where it touches. */
  leavesArrow(): boolean;
  lampShape(): Lamp['shape'];
  /** What one finger does. */
  fingerUse(): FingerUse;
  /** What is laid where the tool in hand has drawn so far. */
  lay(drawn: Drawn): Laid | null;
  /** Whether the sides of the picture that is chosen cut it. */
  cropping(): boolean;
  /** What is being written in place, and so isn't drawn. */
  hiding(): DragPreview | null;
}

/** What becomes of what they do. */
export interface StageNews {
  drawn(stroke: FinishedStroke): void;
  piece(piece: StrokePiece): void;
  /** A line under way was given up. */
  givenUp(stroke: Id): void;
  erased(what: Erased): void;
  cut(cut: Cut): void;
  /** Where they point; `null` where they no longer do. */
  pointed(at: Place | null): void;
  arrowed(at: Place): void;
  /** @param final whether the lamp stays there, and isn't on its way */
  lit(lamp: Lamp, final: boolean): void;
  chose(selection: Selection | null): void;
  /** What is chosen was moved, sized or turned. */
  placed(selection: Selection, from: Frame, to: Frame): void;
  /** The ends of the line that is chosen were moved, or the picture was cropped. */
  redrawn(selection: Selection, to: object): void;
  /** Something was laid by drawing it. */
  laid(page: Id, item: Laid): void;
  /** A text is to be written: a new one at this place, or one that is there. */
  wrote(page: Id, at: Point, item: Item | null): void;
  /** A pen has come, or has been away for a while. */
  penInUse(inUse: boolean): void;
}

/**
 * Who works at the stage, and with what. What is asked are signals or is made of them, so that the stage follows when
 * one changes; nothing that is told may throw.
 */
export interface StageWork extends StageAbilities, StageTools, StageNews {}

const no = (): boolean => false;
const nothing = (): void => undefined;

/** Nobody works there: the board is looked at. */
export const WATCHING: StageWork = {
  mayWriteOn: () => no,
  mayErase: () => no,
  mayChange: () => no,
  mayPointOn: () => no,
  mayLight: no,
  only: () => null,
  tool: () => 'hand',
  style: () => ({ tool: 'pen', ink: 'midnight', width: 2.4 }),
  rubs: no,
  lasso: no,
  leavesArrow: no,
  lampShape: () => 'round',
  fingerUse: () => 'auto',
  lay: () => null,
  cropping: no,
  hiding: () => null,
  drawn: nothing,
  piece: nothing,
  givenUp: nothing,
  erased: nothing,
  cut: nothing,
  pointed: nothing,
  arrowed: nothing,
  lit: nothing,
  chose: nothing,
  placed: nothing,
  redrawn: nothing,
  laid: nothing,
  wrote: nothing,
  penInUse: nothing,
};
