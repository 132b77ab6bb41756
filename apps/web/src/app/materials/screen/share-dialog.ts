import type { Answer } from '@cuaderno/contract/route';
import type { listShareReceivers } from '@cuaderno/contract/routes/materials';
import type { Id } from '@cuaderno/core/id';
import type { Folder } from '@cuaderno/core/materials';
import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormControl } from '@angular/forms';
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { AccountsApi } from '../../api/accounts-api';
import { Attempt } from '../../api/attempt';
import { CoursesApi } from '../../api/courses-api';
import { MaterialsApi } from '../../api/materials-api';
import { copyText } from '../../browser/copy-text';
import { Button } from '../../ui/button/button';
import { MaterialsStore } from '../store/materials-store';
import type { ShareInfo } from '../store/shapes';
import { isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';

type NamedReceiver = Answer<typeof listShareReceivers>[number];

/** Says whom a folder is shared with, shares it with more, and takes it back. */
@Component({
  selector: 'cua-share-dialog',
  imports: [Button, DIALOG, FORM, ProblemMessage, LIST],
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
  protected readonly course = new FormControl<Id | null>(null, isWritten('Choose a course.'));
  protected readonly tutor = new FormControl<Id | null>(null, isWritten('Choose a tutor.'));
  protected readonly attempt = new Attempt();
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

  protected async share(kind: 'tutor' | 'course', whom: FormControl<Id | null>): Promise<void> {
    whom.markAsTouched();
    const { value } = whom;
    if (value === null) return;
    const shared = await this.attempt.make(() => this.store.share(this.folder().id, kind, value));
    if (shared) whom.reset();
  }

  protected async takeBack(share: ShareInfo): Promise<void> {
    await this.attempt.make(() => this.store.takeBack(share.id));
  }

  protected async invite(): Promise<void> {
    await this.attempt.make(async () => {
      const { token } = await firstValueFrom(this.accountsApi.createInvitation());
      this.invitation.set(`${location.origin}/invited/${token}`);
      this.copied.set(false);
    });
  }

  protected async copy(link: string): Promise<void> {
    this.copied.set(await copyText(link));
  }

  private async load(): Promise<void> {
    await this.attempt.make(async () => {
      const [{ courses }, tutors] = await Promise.all([
        firstValueFrom(this.coursesApi.readToday()),
        firstValueFrom(this.materialsApi.listShareReceivers()),
      ]);
      this.courses.set(courses);
      this.tutors.set(tutors);
    });
  }
}
