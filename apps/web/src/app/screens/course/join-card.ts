import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { Check, Copy } from 'lucide';
import { Icon } from '../../icons/icon';

/** How long "copied" is shown, in ms. */
const SHOWN = 2000;

/** How students come in: the link to copy, and the code to read out. */
@Component({
  selector: 'cua-join-card',
  imports: [Icon],
  template: `
    <h2>How students come in</h2>
    <button type="button" class="act" (click)="copy()">
      <cua-icon [of]="copied() ? icons.Check : icons.Copy" [size]="18" />
      {{ copied() ? 'Copied' : 'Copy the join link' }}
    </button>
    <p>
      or at <b>{{ host }}/join</b> with the code
      <b class="code" [attr.aria-label]="spelled()">{{ code() }}</b>
    </p>
  `,
  styleUrl: './join-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinCard {
  readonly course = input.required<{ readonly linkToken: string; readonly joinCode: string }>();
  protected readonly icons = { Check, Copy };
  protected readonly host = location.host;
  protected readonly copied = signal(false);
  /** In groups, as it is read out. */
  protected readonly code = computed(() => {
    const { joinCode } = this.course();
    return `${joinCode.slice(0, 3)} ${joinCode.slice(3)}`;
  });
  protected readonly spelled = computed(() => [...this.course().joinCode].join(' '));

  protected async copy(): Promise<void> {
    const link = `${location.origin}/join/${this.course().linkToken}`;
    try {
      await navigator.clipboard.writeText(link);
    } catch {
      // Without https browsers keep the clipboard to themselves; then this is how it is done.
      prompt('Copy this link:', link);
    }
    this.copied.set(true);
    setTimeout(() => this.copied.set(false), SHOWN);
  }
}
