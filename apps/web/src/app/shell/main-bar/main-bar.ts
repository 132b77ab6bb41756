import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterLinkActive } from '@angular/router';
import { ChevronDown, Menu } from 'lucide';
import { filter, firstValueFrom, map, startWith } from 'rxjs';
import { Account } from '../../api/account';
import { Attempt } from '../../api/attempt';
import { CoursesApi } from '../../api/courses-api';
import type { Course } from '../../api/shapes';
import { ShortcutsDialog } from '../../board/shortcuts/shortcuts-dialog';
import { MaterialsStore } from '../../materials/store/materials-store';
import { WaitingLateLines } from '../../records/late-lines/waiting-late-lines';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Popup } from '../../ui/popup/popup';
import { showTimesIn } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** The main screens, in the order of a tutor's day; courses have a list of their own. */
const SCREENS = [
  { path: '/', label: 'Today' },
  { path: '/week', label: 'Week' },
  { path: '/records', label: 'Records' },
  { path: '/materials', label: 'Materials' },
  { path: '/hours', label: 'Hours' },
  { path: '/mailbox', label: 'Mailbox' },
] as const;

/** Says where the tutor is, and leads to every other main screen and to each course. */
@Component({
  selector: 'cua-main-bar',
  imports: [Button, Icon, Popup, ProblemMessage, RouterLink, RouterLinkActive, ShortcutsDialog],
  templateUrl: './main-bar.html',
  styleUrl: './main-bar.scss',
  host: { role: 'banner' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MainBar {
  private readonly account = inject(Account);
  private readonly coursesApi = inject(CoursesApi);
  private readonly materials = inject(MaterialsStore);
  private readonly late = inject(WaitingLateLines);
  private readonly router = inject(Router);
  private readonly coursesList = viewChild.required<Popup>('coursesList');
  private readonly accountList = viewChild.required<Popup>('accountList');
  protected readonly icons = { ChevronDown, Menu };
  protected readonly screens = SCREENS;
  protected readonly name = signal('');
  protected readonly attempt = new Attempt();
  protected readonly courses = signal<readonly Course[] | null>(null);
  /** In a small window the screens are listed when they are asked for. */
  protected readonly isOpen = signal(false);
  protected readonly listing = signal(false);
  private readonly path = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      startWith(null),
      map(() => this.router.url.split(/[?#]/)[0]!),
    ),
    { requireSync: true },
  );
  protected readonly isOnCourse = computed(() => this.path().startsWith('/courses/'));
  /** Where the tutor is. */
  protected readonly here = computed(() => {
    if (this.isOnCourse()) return 'Course';
    return SCREENS.find(({ path }) => path === this.path())?.label ?? 'Account';
  });

  constructor() {
    this.router.events
      .pipe(
        filter((event) => event instanceof NavigationEnd),
        takeUntilDestroyed(),
      )
      .subscribe(() => {
        this.isOpen.set(false);
        this.coursesList().hide();
        this.accountList().hide();
      });
    // Without a connection it is the account all the same.
    void this.account.load().then(
      ({ tutor }) => this.name.set(tutor?.name ?? ''),
      () => undefined,
    );
  }

  protected openCourses(event: Event): void {
    this.coursesList().toggle(event);
    void this.loadCourses();
  }

  protected async loadCourses(): Promise<void> {
    await this.attempt.make(async () => {
      const { courses } = await firstValueFrom(this.coursesApi.readToday());
      this.courses.set(courses.filter(({ retiredAt }) => retiredAt === null));
    });
  }

  protected listKeys(): void {
    this.accountList().hide();
    this.listing.set(true);
  }

  protected async signOut(): Promise<void> {
    await this.attempt.make(async () => {
      await this.account.signOut();
      showTimesIn(null);
      this.materials.forget();
      this.late.forget();
      await this.router.navigateByUrl('/sign-in');
    });
  }
}
