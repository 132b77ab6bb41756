import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { MailboxApi } from '../../api/mailbox-api';
import { Attempt } from '../../api/attempt';
import type { Letter } from '../../api/shared';
import { Button } from '../../ui/button/button';
import { formatWhen } from '../../ui/time/format-time';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** Letters that would be sent: this mailbox stands in for a mail server. */
@Component({
  selector: 'cua-mailbox',
  imports: [Button, ProblemMessage, EmptyState],
  templateUrl: './mailbox.html',
  styleUrl: './mailbox.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MailboxScreen {
  private readonly mailboxApi = inject(MailboxApi);
  protected readonly letters = signal<readonly Letter[] | null>(null);
  protected readonly open = signal<string | null>(null);
  protected readonly attempt = new Attempt();
  protected readonly say = { when: formatWhen };

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => {
      const { letters } = await firstValueFrom(this.mailboxApi.listLetters());
      this.letters.set(letters);
      this.open.update((open) => open ?? letters[0]?.id ?? null);
    });
  }

  protected async remove(letter: Letter): Promise<void> {
    await this.attempt.make(async () => {
      await firstValueFrom(this.mailboxApi.removeLetter(letter.id));
      this.letters.update((letters) => (letters ?? []).filter(({ id }) => id !== letter.id));
    });
  }

  /** A letter in pieces: its addresses are links. */
  protected pieces(body: string): { text: string; href: string | null }[] {
    return body
      .split(/(https?:\/\/\S+)/)
      .map((text, i) => ({ text, href: i % 2 === 1 ? text : null }));
  }
}
