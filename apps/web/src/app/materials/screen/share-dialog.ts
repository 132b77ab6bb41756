import type { Answer } from '@cuaderno/contract/route';
import type { listShareReceivers } from '@cuaderno/contract/routes/materials';
import type { Folder, Id } from '@cuaderno/core';
import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { AccountsApi } from '../../api/accounts-api';
import { CoursesApi } from '../../api/courses-api';
import { MaterialsApi } from '../../api/materials-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { copyText } from '../../browser/copy-text';
import { MaterialsStore } from '../store/materials-store';
import type { ShareInfo } from '../store/shapes';
import { DIALOG } from '../../ui/popup/dialog';

type NamedReceiver = Answer<typeof listShareReceivers>[number];

/** Says whom a folder is shared with, shares it with more, and takes it back. */
@Component({
  selector: 'cua-share-dialog',
  imports: [ButtonModule, DIALOG, FormsModule, SelectModule],
  templateUrl: './share-dialog.html',
  styleUrl: './share-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShareDialog {
  readonly folder = input.required<Folder>();
  readonly shares = input.required<readonly ShareInfo[]>();
  readonly closed = output();

  private readonly accountsApi = inject(AccountsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly materialsApi = inject(MaterialsApi);
  private readonly store = inject(MaterialsStore);
  protected readonly courses = signal<readonly NamedReceiver[]>([]);
  protected readonly tutors = signal<readonly NamedReceiver[]>([]);
  protected readonly course = signal<Id | null>(null);
  protected readonly tutor = signal<Id | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly busy = signal(false);
  /** The link of an invitation that was just made. */
  protected readonly invitation = signal<string | null>(null);
  protected readonly copied = signal(false);

  constructor() {
    void this.load();
  }

  /** Those it isn't shared with yet. */
  protected others(kind: 'tutor' | 'course', all: readonly NamedReceiver[]): NamedReceiver[] {
    const has = new Set(
      this.shares()
        .filter((share) => share.with.kind === kind)
        .map((share) => share.with.id),
    );
    return all.filter(({ id }) => !has.has(id));
  }

  protected async share(kind: 'tutor' | 'course', id: Id | null): Promise<void> {
    if (!id) return;
    this.busy.set(true);
    await this.store.share(this.folder().id, kind, id);
    this.busy.set(false);
    this.problem.set(this.store.problem());
    this.course.set(null);
    this.tutor.set(null);
  }

  protected async takeBack(share: ShareInfo): Promise<void> {
    this.busy.set(true);
    await this.store.takeBack(share.id);
    this.busy.set(false);
    this.problem.set(this.store.problem());
  }

  protected async invite(): Promise<void> {
    await this.try(async () => {
      const { token } = await firstValueFrom(this.accountsApi.createInvitation());
      this.invitation.set(`${location.origin}/invited/${token}`);
      this.copied.set(false);
    });
  }

  protected async copy(link: string): Promise<void> {
    this.copied.set(await copyText(link));
  }

  private async load(): Promise<void> {
    await this.try(async () => {
      const [{ courses }, tutors] = await Promise.all([
        firstValueFrom(this.coursesApi.readToday()),
        firstValueFrom(this.materialsApi.listShareReceivers()),
      ]);
      this.courses.set(courses);
      this.tutors.set(tutors);
    });
  }

  private async try(what: () => Promise<void>): Promise<void> {
    this.problem.set(null);
    try {
      await what();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }
}
