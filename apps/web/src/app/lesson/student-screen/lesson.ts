import { addPageBeside } from '@cuaderno/core/edits';
import type { Id } from '@cuaderno/core/id';
import { teaches } from '@cuaderno/core/permissions';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { BookOpen, FileDown, Footprints, MessagesSquare, Presentation, SquarePen } from 'lucide';
import { isLineThin } from '../../browser/thin-line';
import { HandedFiles } from '../../materials/handing-over/handed-files';
import { matches, PHONE_ON_ITS_SIDE } from '../../ui/theme/matches';
import { FeatureViews } from '../../live/features/feature-views';
import { HandedList } from '../../materials/handing-over/handed-list';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { wayBack } from '../way-back/way-back';
import { WindowTitle } from '../../ui/title/window-title';
import { OwnLateNotice } from '../../records/late-lines/own-late-notice';
import { PageTurner } from '../../board/pages/page-turner';
import { HelperRoom } from '../helper-room/helper-room';
import { ClassStrip } from '../people/class-strip';
import { SidePanel } from '../../ui/popup/side-panel';
import { ReadingRoom } from '../../records/reading/reading-room';
import { PaperSource } from '../../board/drawing/paper-source';
import { pdfJs } from '../../board/drawing/pdf-js';
import { Announcer } from '../talk/announcer';
import { SignalBar } from '../talk/signal-bar';
import { TalkDialog } from '../talk/talk-dialog';
import { LessonClock } from '../../ui/time/lesson-clock';
import { UnreadableNotice } from '../../board/unreadable/unreadable-notice';
import { WorkArea } from '../../board/work-area/work-area';
import { Handouts } from './handouts';
import { OpenLesson } from '../open-lesson/open-lesson';
import { OwnPen } from './own-pen';
import { UnreadMessages } from './unread-messages';

/** The lesson as a student has it: the board, the tools, and one line that says who may write. */
@Component({
  selector: 'cua-lesson',
  imports: [
    Announcer,
    Button,
    Tip,
    UnreadableNotice,
    ClassStrip,
    FeatureViews,
    HandedList,
    HelperRoom,
    Icon,
    LessonClock,
    OwnLateNotice,
    PageTurner,
    ReadingRoom,
    RouterLink,
    SidePanel,
    SignalBar,
    TalkDialog,
    WorkArea,
  ],
  providers: [Handouts, OpenLesson],
  templateUrl: './lesson.html',
  styleUrl: './lesson.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonScreen {
  protected readonly here = inject(OpenLesson);
  protected readonly handouts = inject(Handouts);
  protected readonly handed = inject(HandedFiles);
  protected readonly icons = {
    BookOpen,
    FileDown,
    Footprints,
    MessagesSquare,
    Presentation,
    SquarePen,
  };
  protected readonly papers = new PaperSource(null, isLineThin);
  protected readonly session = this.here.session;
  /** Whether one helps here, and has what the tutor has in a lesson. */
  protected readonly helps = computed(() => teaches(this.session()?.role() ?? 'student'));
  protected readonly wayBack = wayBack;
  protected readonly area = viewChild(WorkArea);
  protected readonly page = signal<Id | null>(null);
  protected readonly own = new OwnPen(this.session, this.page);
  protected readonly talking = signal(false);
  /** Whether there is only the page in the window, and few tools. */
  protected readonly pageOnly = signal(false);
  protected readonly isOnItsSide = matches(PHONE_ON_ITS_SIDE);
  protected readonly unread = new UnreadMessages(this.session, this.talking);
  /** Looking at what one was handed. */
  protected readonly keeping = signal(false);
  protected readonly say = { unsent: formatUnsent };

  constructor() {
    const title = inject(WindowTitle);
    effect(() => title.name(this.here.title() || 'Lesson'));
    // Over a thin line the page comes as a picture first, and nothing is in its way.
    if (!isLineThin()) void pdfJs();
    effect(() => {
      const session = this.session();
      if (session?.line() !== 'live') return;
      session.features.invalidation.handed();
      untracked(() => void this.handed.load());
    });
    inject(DestroyRef).onDestroy(() => this.papers.close());
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected listKeys(): void {
    this.area()?.listing.set(true);
  }

  protected addPage(): void {
    const session = this.session();
    if (!session) return;
    const { changes, show } = addPageBeside(session.board(), this.page(), 'after');
    // Taking pages out is the tutor's.
    for (const change of changes) session.doForGood(change);
    this.goTo(show);
  }

  protected reload(): void {
    location.reload();
  }
}

/** @param isOffered whether it goes to the tutor as soon as there is a connection */
function formatUnsent(changes: number, isOffered: boolean): string {
  const [what, it] = changes === 1 ? ['One change', 'It is'] : [`${changes} changes`, 'They are'];
  const next = isOffered
    ? ', and will go to your tutor as soon as there is a connection, now or next time. All else is kept.'
    : '. All else is kept. Tell your tutor.';
  return `${what} that you made while the connection was lost did not arrive before it ended. ${it} kept in this browser${next}`;
}
