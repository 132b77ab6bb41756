import { canBeLaid } from '@cuaderno/core/materials';
import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { X } from 'lucide';
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { CoursesApi } from '../../api/courses-api';
import { MaterialsApi } from '../../api/materials-api';
import { ImportsApi } from '../../api/imports-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { Tip } from '../../ui/tip/tip';
import { HandOverDialog } from '../handing-over/hand-over-dialog';
import { Icon } from '../../ui/icons/icon';
import { AssetPicture } from '../store/asset-picture';
import { formatAsset, formatBytes, formatPages } from '../store/format-material';
import { MaterialsStore } from '../store/materials-store';
import type { AssetInfo, UseInfo } from '../store/shapes';
import { formatDate } from '../../ui/time/format-time';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** One file: what it is, what it is used on, and what can be made of it. */
@Component({
  selector: 'cua-asset-panel',
  imports: [
    AssetPicture,
    Button,
    FormsModule,
    HandOverDialog,
    Icon,
    ProblemMessage,
    RouterLink,
    LIST,
    Tip,
  ],
  templateUrl: './asset-panel.html',
  styleUrl: './asset-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AssetPanel {
  readonly asset = input.required<AssetInfo>();
  /** Whether it is one's own, to be named and removed. */
  readonly own = input(true);
  readonly closed = output();

  private readonly coursesApi = inject(CoursesApi);
  private readonly materialsApi = inject(MaterialsApi);
  private readonly importsApi = inject(ImportsApi);
  private readonly store = inject(MaterialsStore);
  private readonly router = inject(Router);
  protected readonly icons = { X };
  protected readonly say = {
    bytes: formatBytes,
    date: formatDate,
    pages: formatPages,
    what: formatAsset,
  };
  protected readonly canBeLaid = canBeLaid;
  protected readonly handing = signal(false);
  /** `null` while they are looked up. */
  protected readonly uses = signal<readonly UseInfo[] | null>(null);
  protected readonly courses = signal<readonly Course[]>([]);
  protected readonly course = signal<Id | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  /** How far a board is that is being made; `null` where none is. */
  protected readonly making = signal<string | null>(null);
  private abort: AbortController | null = null;

  constructor() {
    effect(() => {
      const { id } = this.asset();
      untracked(() => void this.look(id));
    });
    void this.load();
  }

  protected async name(name: string): Promise<void> {
    if (name.trim() !== '' && name !== this.asset().name)
      await this.store.nameAsset(this.asset().id, name);
  }

  /** Makes a board of it, and goes there. */
  protected async make(): Promise<void> {
    const course = this.course();
    if (!course) return;
    const abort = (this.abort = new AbortController());
    this.problem.set(null);
    this.making.set('Making the board');
    try {
      const made = await firstValueFrom(
        this.materialsApi.createBoardOfAsset(this.asset().id, { course }),
      );
      const job = 'job' in made ? made.job : null;
      const board =
        'job' in made
          ? await this.importsApi.boardOfImport(
              made.job,
              (words) => this.making.set(words),
              abort.signal,
            )
          : made;
      if (board) await this.router.navigate(['/boards', board.id], { state: { import: job } });
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.making.set(null);
    }
  }

  protected stop(): void {
    this.abort?.abort();
  }

  private async look(id: Id): Promise<void> {
    this.uses.set(null);
    try {
      const uses = await this.store.uses({ folders: [], assets: [id] });
      if (this.asset().id === id) this.uses.set(uses);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  private async load(): Promise<void> {
    try {
      const { courses } = await firstValueFrom(this.coursesApi.readToday());
      this.courses.set(courses);
      this.course.set(courses[0]?.id ?? null);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }
}
