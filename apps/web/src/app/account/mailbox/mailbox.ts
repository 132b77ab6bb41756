import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { MailboxApi } from '../../api/mailbox-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Letter } from '../../api/shared';
import { formatWhen } from '../../ui/time/format-time';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Letters that would be sent: this mailbox stands in for a mail server. */
@Component({
  selector: 'cua-mailbox',
  imports: [ProblemMessage, RouterLink],
  templateUrl: './mailbox.html',
  styleUrl: './mailbox.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MailboxScreen {
  private readonly mailboxApi = inject(MailboxApi);
  protected readonly letters = signal<readonly Letter[] | null>(null);
  protected readonly open = signal<string | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly say = { when: formatWhen };

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    try {
      const { letters } = await firstValueFrom(this.mailboxApi.listLetters());
      this.letters.set(letters);
      this.open.update((open) => open ?? letters[0]?.id ?? null);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  protected async remove(letter: Letter): Promise<void> {
    try {
      await firstValueFrom(this.mailboxApi.removeLetter(letter.id));
      this.letters.update((letters) => (letters ?? []).filter(({ id }) => id !== letter.id));
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  /** A letter in pieces: its addresses are links. */
  protected pieces(body: string): { text: string; href: string | null }[] {
    return body
      .split(/(https?:\/\/\S+)/)
      .map((text, i) => ({ text, href: i % 2 === 1 ? text : null }));
  }
}
