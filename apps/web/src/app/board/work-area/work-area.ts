import { AssetShape } from '@cuaderno/contract/materials';
import { onlyBy } from '@cuaderno/core/board';
import type { Board, Item } from '@cuaderno/core/board';
import type { View } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { Change } from '@cuaderno/core/ops';
import type { Problem } from '@cuaderno/core/problem';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  HostListener,
  inject,
  Injector,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { Maximize, MoveHorizontal, ZoomIn, ZoomOut } from 'lucide';
import { readJson } from '../../browser/read-json';
import { Icon } from '../../ui/icons/icon';
import { layingBy } from '../kinds/register';
import type { BoardSession } from '../../live/board-session';
import { FeatureViews } from '../../live/features/feature-views';
import { CARRIED_ASSET } from '../../materials/store/carried';
import type { PagesGo } from '../../materials/store/pages-go';
import type { AssetInfo } from '../../materials/store/shapes';
import { MediaLayer } from '../media/media-layer';
import { LineNotice } from '../../live/line-notice';
import { isInSidePanel, isModalOpen } from '../../ui/popup/modal';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { StraightenDialog } from '../scan/straighten-dialog';
import { FULL_SIZE } from '../stage/camera';
import type { FingerUse } from '../stage/gestures';
import type { PaperSource } from '../drawing/paper-source';
import type { Cut } from '../stage/rubbing';
import type { Selection } from '../stage/selecting';
import { Passing } from '../../ui/time/passing';
import { Stage } from '../stage/stage';
import type { Erased, FinishedStroke, StrokePiece } from '../stage/writing';
import { Tools } from '../tool/tool';
import type { Tool } from '../tool/tool';
import { ToolDock } from '../dock/tool-dock';
import { Abilities } from '../editing/abilities';
import { arrangeByKey, isField } from './arrange-keys';
import type { ByKey } from './arrange-keys';
import { Arranging } from '../editing/arranging';
import { ClassMarks } from './class-marks';
import type { PastWriter } from './class-marks';
import { copyItems, pastedItems } from '../editing/clipboard';
import { CoverSheets } from '../editing/cover-sheets';
import { FingerSwitch } from './finger-switch';
import { PageWriting } from '../editing/page-writing';
import { FormulaBar } from '../editing/formula-bar';
import { showOthers } from './from-others';
import { InStep } from './in-step';
import { LampFollower } from './lamp-follower';
import { MaterialInserter } from '../editing/material-inserter';
import { toolByKey } from './shortcuts';
import { TextInPlace } from '../editing/text-in-place';
import type { TextInPlace as Editor } from '../editing/text-in-place';
import { WipePanel } from '../editing/wipe-panel';

/** How long what the server would not take is shown, in ms. */
const PROBLEM_SHOWN = 6000;

/**
 * A board with its tools: the stage in the middle, the tools docked beside it. What is done on the
 * stage becomes operations of the session here, and nowhere else.
 */
@Component({
  selector: 'cua-work-area',
  imports: [
    CoverSheets,
    FeatureViews,
    FingerSwitch,
    FormulaBar,
    Icon,
    LineNotice,
    MediaLayer,
    Stage,
    StraightenDialog,
    TextInPlace,
    ToolDock,
    WipePanel,
  ],
  templateUrl: './work-area.html',
  styleUrl: './work-area.scss',
  host: { '[class.right]': "tools.side() === 'right'", '[class.away]': 'away()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorkArea {
  readonly session = input.required<BoardSession>();
  readonly papers = input.required<PaperSource>();
  readonly page = output<Id>();

  /** Out of sight for a while: keys are not for the board then. */
  readonly away = input(false);
  /** Looks around by itself, though somebody else leads. */
  readonly around = input(false);
  /** Whether every line says whose it is, and whose alone are shown. */
  readonly signed = input(false);
  readonly only = input<Id | null>(null);
  /** Who wrote on the board before. */
  readonly earlier = input<readonly PastWriter[]>([]);
  /** A file was brought here, and lies among materials now. */
  readonly inserted = output();
  /** Whether this person lays material on pages, too. */
  readonly arranges = input(false);
  protected readonly tools = new Tools();
  protected readonly layBy = layingBy(this.tools);
  /** Whether a pen is in use here; `null` until one came. */
  protected readonly penInUse = signal<boolean | null>(null);
  protected readonly fingerUse = signal<FingerUse>('auto');
  protected readonly shownPage = signal<Id | null>(null);
  readonly abilities = new Abilities(
    () => this.session(),
    () => this.shownPage(),
  );
  readonly marks = new ClassMarks(
    () => this.session(),
    this.abilities,
    () => this.earlier(),
  );
  protected readonly arranging = new Arranging(
    () => this.session(),
    () => this.papers(),
    () => this.tools.layer(),
    (item) => this.abilities.change()(item),
    (selection) => this.showChosen(selection),
  );
  /** It comes when it is used, or before, when nothing else is to be done. */
  protected readonly inPlace = viewChild<Editor>('inPlace');
  protected readonly writing = new PageWriting(
    () => this.session(),
    this.tools,
    () => this.inPlace(),
  );
  protected readonly covers = viewChild(CoverSheets);
  protected readonly pictures = new MaterialInserter(
    () => this.session(),
    (page, ids) => this.showChosen({ page, ids }),
  );
  protected readonly icons = { Maximize, MoveHorizontal, ZoomIn, ZoomOut };
  protected readonly stage = viewChild.required(Stage);
  /** This window follows the tutor's: it can't be moved by itself. */
  readonly isLed = computed(
    () => this.session().features.inStep.on() && !this.abilities.leads() && !this.around(),
  );
  /** Whether what is on the page in view has yet to come. */
  protected readonly isComing = computed(() =>
    this.session()
      .coming()
      .has(this.shownPage() ?? ''),
  );
  protected readonly percent = computed(() =>
    Math.round(((this.stage().zoom() ?? FULL_SIZE) / FULL_SIZE) * 100),
  );
  private readonly refused = new Passing<Problem>(PROBLEM_SHOWN);
  protected readonly problem = this.refused.now;
  /** Whose ink is to be wiped: asked of all, or opened for one. */
  readonly wiping = signal<'all' | { readonly who: Id } | null>(null);
  protected readonly wipedWhom = computed(() => {
    const what = this.wiping();
    return what && what !== 'all' ? what.who : null;
  });
  /** What is shown of the board: all of it, or one person's ink. */
  protected readonly board = computed<Board>(() => {
    const only = this.only();
    const board = this.session().board();
    return only ? onlyBy(board, only) : board;
  });
  private readonly byKey: ByKey = {
    tool: () => this.tools.tool(),
    page: () => this.stage().page(),
    arranges: () => this.arranges(),
    arranging: this.arranging,
    mayRemove: (items) => this.abilities.remove()(items),
    write: (item, page) => void this.write({ page, at: item.frame, item }),
    rest: () => this.showChosen(null),
  };
  private readonly injector = inject(Injector);
  private readonly router = inject(Router);
  private readonly typedAhead = inject(TypedAhead);
  private began = false;

  constructor() {
    showOthers(this.session, this.stage);
    effect(() => {
      const [role, lesson] = [this.session().role(), this.session().lesson()];
      untracked(() => this.tools.layFor(role, lesson !== null));
    });
    effect(() => {
      const lesson = this.session().lesson()?.id;
      if (lesson) untracked(() => this.tools.begin(lesson));
    });
    effect(() => {
      const page = this.session().startPage();
      if (!this.session().ready() || !page || this.began) return;
      this.began = true;
      untracked(() => this.stage().goTo(page));
    });
    new InStep(
      () => this.session(),
      () => this.stage(),
      () => this.abilities.leads(),
      () => this.around(),
    );
    new LampFollower(
      () => {
        const { features, ready } = this.session();
        const led = features.inStep.on() && !this.around();
        return ready() && !led && !this.abilities.light() ? features.pointing.shown().lamp : null;
      },
      () => this.stage(),
    );
    effect(() => {
      this.tools.tool();
      // Another tool in hand: what was being written is finished.
      untracked(() => this.writing.finish());
    });
    effect(() => {
      const problem = this.session().problem();
      if (problem) this.refused.say(problem);
    });
  }

  /** A text or formula is written at a place, or the one that is there is opened. */
  protected async write(what: { page: Id; at: Point; item: Item | null }): Promise<void> {
    const { page, at, item } = what;
    if (!(await this.writing.open(page, at, item))) return;
    afterNextRender(() => this.stage().reveal(page, at), { injector: this.injector });
  }

  /** Pictures, sounds and films that are brought from this machine, by choosing, dropping or pasting. */
  protected insertFiles(files: readonly File[], client?: Point): void {
    const place = (client && this.stage().placeAt(client)) ?? this.stage().middle;
    if (place)
      void this.pictures.insert(files, place.page, place.at).then(() => this.inserted.emit());
  }

  /** A file of the tutor's materials is laid where it was let go, or in the middle of what is seen. */
  lay(asset: AssetInfo, client?: Point, pagesGo: PagesGo = 'after'): void {
    const place = (client && this.stage().placeAt(client)) ?? this.stage().middle;
    if (!place) return;
    if (asset.kind === 'pdf') void this.pictures.insertPages(asset, place.page, pagesGo);
    else void this.pictures.layAsset(asset, place.page, place.at);
  }

  @HostListener('dragover', ['$event'])
  protected over(event: DragEvent): void {
    const types = event.dataTransfer?.types ?? [];
    if (this.arranges() && (types.includes('Files') || types.includes(CARRIED_ASSET)))
      event.preventDefault();
  }

  @HostListener('drop', ['$event'])
  protected drop(event: DragEvent): void {
    const data = event.dataTransfer;
    if (!this.arranges() || !data) return;
    const at = { x: event.clientX, y: event.clientY };
    const carried = data.getData(CARRIED_ASSET);
    if (carried) {
      // Anything may be dragged here, from any page.
      const asset = readJson(AssetShape, carried);
      if (asset) this.lay(asset, at);
    } else if (data.types.includes('Files')) this.insertFiles([...data.files], at);
    else return;
    event.preventDefault();
  }

  @HostListener('document:copy', ['$event'])
  @HostListener('document:cut', ['$event'])
  protected copy(event: ClipboardEvent): void {
    const items = this.arranging.items();
    // Words that are marked somewhere on the screen are what is meant, then.
    const words = getSelection()?.isCollapsed === false;
    if (!this.arranges() || words || isField(event.target) || items.length === 0) return;
    if (!event.clipboardData) return;
    event.preventDefault();
    copyItems(event.clipboardData, items);
    if (event.type === 'cut') this.arranging.do({ kind: 'remove' });
  }

  @HostListener('document:paste', ['$event'])
  protected paste(event: ClipboardEvent): void {
    const data = event.clipboardData;
    if (!this.arranges() || isField(event.target) || !data) return;
    const items = pastedItems(data);
    const files = [...data.files].filter(({ type }) => /^(image|audio|video)\//.test(type));
    if (!items && files.length === 0) return;
    event.preventDefault();
    if (items) void this.pasteItems(items);
    else this.insertFiles(files);
  }

  /** Items from this board or another: their files may be seen here from now on. */
  private async pasteItems(items: readonly Item[]): Promise<void> {
    const place = this.stage().middle;
    if (!place || !(await this.pictures.share(items))) return;
    const here = this.session().board().pages.get(place.page)!;
    // Where they came from if that is on this page; a step aside if they are there still.
    const there = items.some(({ id }) => here.items.get(id)?.removed === null);
    const aside = there ? 14 : 0;
    this.tools.tool.set('select');
    this.arranging.lay(place.page, items, aside, aside);
  }

  private showChosen(selection: Selection | null): void {
    if (selection) this.tools.tool.set('select');
    this.arranging.choose(selection);
    // What was made this moment is on the stage with the next change of the board.
    queueMicrotask(() => this.stage().choose(selection));
  }

  goTo(page: Id): void {
    this.stage().goTo(page);
  }

  /** What is seen of the board just now. */
  get part(): View | null {
    return this.stage().part;
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

  protected rubbed({ page, item, pieces, gesture }: Cut): void {
    if (pieces.length > 0)
      this.session().do({ kind: 'ink.cut', page, item, pieces: [...pieces] }, gesture);
    else this.session().do({ kind: 'items.remove', page, items: [item] }, gesture);
  }

  protected wipe(changes: readonly Change[]): void {
    this.wiping.set(null);
    this.session().doAll(changes);
  }

  protected lightOff(): void {
    this.session().features.pointing.light(null, true);
    if (this.tools.tool() === 'lamp') this.tools.tool.set('pen');
  }

  /** Takes away one's own arrow, or all of them for whoever teaches. */
  protected arrowsOff(): void {
    const { features } = this.session();
    if (this.session().role() === 'tutor') features.pointing.clearArrows();
    else features.pointing.leaveArrow(null);
  }

  /** Shows where another window is, once. */
  show(view: View): void {
    this.stage().show(view);
  }

  protected shown(page: Id): void {
    this.shownPage.set(page);
    this.session().look(page);
    this.page.emit(page);
  }

  protected readonly percentOf = (part: number): number => Math.round(part * 100);

  protected zoom(factor: number): void {
    this.stage().zoomBy(factor);
  }

  protected fullSize(): void {
    this.stage().zoomTo(FULL_SIZE);
  }

  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    // Letters for a dialog or another screen, also for one that is just coming, are no tools.
    const comes = isModalOpen() || this.typedAhead.isOpening() || this.router.currentNavigation();
    if (this.away() || isField(event.target) || comes || this.arranging.straightening()) return;
    if (this.writing.takes(event)) return event.preventDefault();
    const key = event.key.toLowerCase();
    if (key === 'pageup' || key === 'pagedown') {
      // Whatever has the focus; the stage has turned already where it has.
      if (!event.defaultPrevented) this.stage().turn(key === 'pageup' ? -1 : 1);
      return event.preventDefault();
    }
    if (isInSidePanel(event.target)) return;
    const commands = event.ctrlKey || event.metaKey;
    const done = this.abilities.write() && arrangeByKey(event, this.byKey);
    if (done) return event.preventDefault();
    if (commands && !event.altKey) {
      if (key === 'z' || key === 'y') {
        event.preventDefault();
        if (key === 'y' || event.shiftKey) this.session().redo();
        else this.session().undo();
      }
      return;
    }
    if (key === 'escape' && this.abilities.light() && this.session().features.pointing.shown().lamp)
      return this.lightOff();
    const plain = !event.altKey && !event.shiftKey;
    if (key === 'o' && plain && this.covers()) return this.covers()!.flip();
    const usable = (tool: Tool): boolean => {
      if (tool === 'hand') return true;
      if (tool === 'pointer') return this.abilities.pointOn()(this.shownPage() ?? '');
      return tool === 'lamp' ? this.abilities.light() : this.abilities.write();
    };
    if (toolByKey(event, this.tools, usable)) event.preventDefault();
  }
}
