import { signal } from '@angular/core';
import type { Item } from '@cuaderno/core/board';
import type { Lamp, Place } from '@cuaderno/core/features';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { BoardSession } from '../../live/board-session';
import type { Abilities } from '../editing/abilities';
import type { Arranging } from '../editing/arranging';
import type { PageWriting } from '../editing/page-writing';
import type { Laid } from '../kinds/kind';
import { layingBy } from '../kinds/register';
import { keepFingerUse, keptFingerUse } from '../stage/finger-use';
import type { FingerUse } from '../stage/finger-use';
import type { Cut } from '../stage/rubbing';
import type { Selection } from '../stage/selecting';
import type { StageWork } from '../stage/stage-work';
import type { Erased, FinishedStroke, StrokePiece } from '../stage/writing';
import type { Tools } from '../tool/tool';

/** Work on a board: what is done on the stage becomes operations of the session here, and nowhere else. */
export class WorkOnStage implements StageWork {
  /** Whether a pen is in use here; `null` until one came. */
  readonly pen = signal<boolean | null>(null);
  readonly fingerUse = signal(keptFingerUse());

  readonly mayWriteOn;
  readonly mayErase;
  readonly mayChange;
  readonly mayPointOn;
  readonly mayLight;
  readonly only;
  readonly tool;
  readonly style;
  readonly rubs;
  readonly lasso;
  readonly leavesArrow;
  readonly lampShape;
  readonly lay;
  readonly cropping;
  readonly hiding;

  /** @param write opens a text or formula that is there, or a new one */
  constructor(
    private readonly session: () => BoardSession,
    private readonly arranging: Arranging,
    abilities: Abilities,
    tools: Tools,
    writing: PageWriting,
    private readonly write: (page: Id, at: Point, item: Item | null) => void,
  ) {
    this.mayWriteOn = abilities.writeOn;
    this.mayErase = abilities.erase;
    this.mayChange = abilities.change;
    this.mayPointOn = abilities.pointOn;
    this.mayLight = abilities.light;
    this.only = abilities.only;
    this.tool = tools.tool.asReadonly();
    this.style = tools.style;
    this.rubs = tools.rubs.asReadonly();
    this.lasso = tools.lasso.asReadonly();
    this.leavesArrow = tools.leavesArrow.asReadonly();
    this.lampShape = tools.lamp.asReadonly();
    this.lay = layingBy(tools);
    this.cropping = arranging.cropping;
    this.hiding = writing.hiding;
  }

  drawn({ id, page, ink }: FinishedStroke): void {
    this.session().do({ id, kind: 'ink.add', page, ink });
  }

  piece({ stroke, start, points }: StrokePiece): void {
    this.session().sendInk(stroke, start, points);
  }

  givenUp(stroke: Id): void {
    this.session().endInk(stroke);
  }

  erased({ page, items, gesture }: Erased): void {
    this.session().do({ kind: 'items.remove', page, items }, gesture);
  }

  cut({ page, item, pieces, gesture }: Cut): void {
    if (pieces.length > 0)
      this.session().do({ kind: 'ink.cut', page, item, pieces: [...pieces] }, gesture);
    else this.session().do({ kind: 'items.remove', page, items: [item] }, gesture);
  }

  pointed(at: Place | null): void {
    this.session().features.pointing.point(this.session().board().id, at);
  }

  arrowed(at: Place): void {
    this.session().features.pointing.leaveArrow(this.session().board().id, at);
  }

  lit(lamp: Lamp, final: boolean): void {
    this.session().features.pointing.light(this.session().board().id, lamp, final);
  }

  chose(selection: Selection | null): void {
    this.arranging.choose(selection);
  }

  placed(selection: Selection, from: Frame, to: Frame): void {
    this.arranging.placed({ selection, from, to });
  }

  redrawn(selection: Selection, to: object): void {
    this.arranging.redrawn(selection, to);
  }

  laid(page: Id, item: Laid): void {
    this.arranging.laid(page, item);
  }

  wrote(page: Id, at: Point, item: Item | null): void {
    this.write(page, at, item);
  }

  useFingers(use: FingerUse): void {
    this.fingerUse.set(use);
    keepFingerUse(use);
  }

  penInUse(inUse: boolean): void {
    this.pen.set(inUse);
  }
}
