import { teaches } from '@cuaderno/core/permissions';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  Injector,
  input,
  model,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { onlyBy } from '@cuaderno/core/board';
import type { Board, Item } from '@cuaderno/core/board';
import type { View } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { Change } from '@cuaderno/core/ops';
import type { BoardSession } from '../../live/board-session';
import { FeatureViews } from '../../live/features/feature-views';
import type { PagesGo } from '../../materials/store/pages-go';
import type { AssetInfo } from '../../materials/store/shapes';
import { isModalOpen } from '../../ui/popup/modal';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { FewTools } from '../dock/few-tools';
import { ToolBar } from '../dock/tool-bar';
import { ToolDock } from '../dock/tool-dock';
import type { PaperSource } from '../drawing/paper-source';
import { Abilities } from '../editing/abilities';
import { Arranging } from '../editing/arranging';
import { CoverSheets } from '../editing/cover-sheets';
import { FormulaBar } from '../editing/formula-bar';
import { MaterialInserter } from '../editing/material-inserter';
import { PageWriting } from '../editing/page-writing';
import { TextInPlace } from '../editing/text-in-place';
import type { TextInPlace as Editor } from '../editing/text-in-place';
import { WipePanel } from '../editing/wipe-panel';
import { MediaLayer } from '../media/media-layer';
import { DescribeDialog } from '../editing/describe-dialog';
import { StraightenDialog } from '../scan/straighten-dialog';
import type { Selection } from '../stage/selecting';
import { PageOutline } from '../outline/page-outline';
import { Shortcuts } from '../shortcuts/shortcuts';
import { ShortcutsDialog } from '../shortcuts/shortcuts-dialog';
import { Stage } from '../stage/stage';
import { Tools } from '../tool/tool';
import { isField } from './arrange-keys';
import { ClassMarks } from './class-marks';
import type { PastWriter } from './class-marks';
import { FingerSwitch } from './finger-switch';
import { showOthers } from './from-others';
import { InStep } from './in-step';
import { LampFollower } from './lamp-follower';
import { Transfer } from './transfer';
import { ViewBar } from './view-bar';
import { WorkKeys } from './work-keys';
import { WorkNotices } from './work-notices';
import { WorkOnStage } from './work-on-stage';

/** A board with its tools: the stage, the tools beside it, and below it what is told and what is in hand. */
@Component({
  selector: 'cua-work-area',
  imports: [
    CoverSheets,
    DescribeDialog,
    FeatureViews,
    FewTools,
    FingerSwitch,
    FormulaBar,
    MediaLayer,
    PageOutline,
    ShortcutsDialog,
    Stage,
    StraightenDialog,
    TextInPlace,
    ToolBar,
    ToolDock,
    ViewBar,
    WipePanel,
    WorkNotices,
  ],
  templateUrl: './work-area.html',
  styleUrl: './work-area.scss',
  host: {
    '[class.right]': "tools.side() === 'right'",
    '[class.away]': 'away()',
    '(dragover)': 'transfer.over($event)',
    '(drop)': 'transfer.drop($event)',
    '(document:copy)': 'transfer.copy($event)',
    '(document:cut)': 'transfer.copy($event)',
    '(document:paste)': 'transfer.paste($event)',
    '(document:keydown)': 'key($event)',
  },
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
  /** Whether there is only the page in the window, and few tools. */
  readonly pageOnly = model(false);
  /** The list of all keys is looked at. */
  readonly listing = signal(false);
  protected readonly tools = new Tools();
  protected readonly shownPage = signal<Id | null>(null);
  readonly abilities = new Abilities(
    () => this.session(),
    () => this.shownPage(),
  );
  readonly marks = new ClassMarks(
    () => this.session(),
    this.abilities,
    () => this.earlier(),
    () => this.signed(),
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
  protected readonly stage = viewChild.required(Stage);
  protected readonly transfer = new Transfer(
    () => this.session(),
    () => this.stage(),
    () => this.arranges(),
    this.tools,
    this.arranging,
    this.pictures,
    () => this.inserted.emit(),
  );
  protected readonly work = new WorkOnStage(
    () => this.session(),
    this.arranging,
    this.abilities,
    this.tools,
    this.writing,
    (page, at, item) => void this.write(page, at, item),
  );
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
  private readonly keys = new WorkKeys(
    {
      session: () => this.session(),
      stage: () => this.stage(),
      page: () => this.shownPage(),
      covers: () => this.covers(),
      lightOff: () => this.lightOff(),
      pageOnly: this.pageOnly,
      showShortcuts: () => this.listing.set(true),
    },
    inject(Shortcuts),
    this.tools,
    this.abilities,
    this.writing,
    {
      tool: () => this.tools.tool(),
      page: () => this.stage().view.page(),
      arranges: () => this.arranges(),
      arranging: this.arranging,
      mayRemove: (items) => this.abilities.remove()(items),
      write: (item, page) => void this.write(page, item.frame, item),
      rest: () => this.showChosen(null),
    },
  );
  /** Whether this window belongs to one who watches: tools would be of no use to them. */
  protected readonly watches = computed(() => this.session().role() === 'watcher');

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
      // There is nothing else that they can do on the page.
      if (this.watches()) untracked(() => this.tools.tool.set('hand'));
    });
    effect(() => {
      const { board, place, startPage, ready } = this.session();
      const page = startPage();
      if (!ready() || this.began) return;
      // Where somebody was on this board before, or is brought to by the one who teaches.
      const last = untracked(place);
      const view = last && isOn(untracked(board), last) ? last : null;
      if (!view && !page) return;
      this.began = true;
      untracked(() => (view ? this.stage().view.show(view) : this.stage().view.goTo(page!)));
    });
    inject(DestroyRef).onDestroy(() => {
      const session = this.session();
      session.place.set(this.stage().view.part);
      session.lookAway();
      // Who looks at something else points nowhere here.
      session.features.pointing.point(session.board().id, null);
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
        return ready() && !led && !this.abilities.light() ? this.marks.shown().lamp : null;
      },
      () => this.stage(),
    );
    effect(() => {
      this.tools.tool();
      // Another tool in hand: what was being written is finished.
      untracked(() => this.writing.finish());
    });
  }

  /** A text or formula is written at a place, or the one that is there is opened. */
  private async write(page: Id, at: Point, item: Item | null): Promise<void> {
    if (!(await this.writing.open(page, at, item))) return;
    afterNextRender(() => this.stage().view.reveal(page, at), { injector: this.injector });
  }

  /** A file of the tutor's materials is laid on the page in view. */
  lay(asset: AssetInfo, pagesGo: PagesGo): void {
    this.transfer.lay(asset, undefined, pagesGo);
  }

  private showChosen(selection: Selection | null): void {
    if (selection) this.tools.tool.set('select');
    this.arranging.choose(selection);
    // What was made this moment is on the stage with the next change of the board.
    queueMicrotask(() => this.stage().choose(selection));
  }

  goTo(page: Id): void {
    this.stage().view.goTo(page);
  }

  /** What is seen of the board just now. */
  get part(): View | null {
    return this.stage().view.part;
  }

  protected wipe(changes: readonly Change[]): void {
    this.wiping.set(null);
    this.session().doAll(changes);
  }

  protected teaches(): boolean {
    return teaches(this.session().role());
  }

  protected lightOff(): void {
    this.session().features.pointing.light(this.session().board().id, null, true);
    if (this.tools.tool() === 'lamp') this.tools.tool.set('pen');
  }

  /** Takes away one's own arrow, or all of them for the tutor. */
  protected arrowsOff(): void {
    const { features } = this.session();
    if (teaches(this.session().role())) features.pointing.clearArrows();
    else features.pointing.leaveArrow(this.session().board().id, null);
  }

  /** Shows where another window is, once. */
  show(view: View): void {
    this.stage().view.show(view);
  }

  protected shown(page: Id): void {
    this.shownPage.set(page);
    this.session().look(page);
    this.page.emit(page);
  }

  protected key(event: KeyboardEvent): void {
    // Letters for a dialog or another screen, also for one that is just coming, are no tools.
    // With Ctrl held it is none of somebody's words.
    const isAhead = !event.ctrlKey && !event.metaKey && this.typedAhead.isOpening();
    const comes = isModalOpen() || isAhead || this.router.currentNavigation();
    if (this.away() || isField(event.target) || comes || this.arranging.straightening()) return;
    this.keys.press(event);
  }
}

/** Whether the page that was looked at is there still. */
function isOn(board: Board, { page }: View): boolean {
  const there = board.pages.get(page);
  return there !== undefined && !there.removed;
}
