import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { Check, Copy, QrCode } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { copyText } from '../../browser/copy-text';
import { Passing } from '../../ui/time/passing';
import { Tip } from '../../ui/tip/tip';
import { QrDialog } from './qr-dialog';

/** How long "copied" is shown, in ms. */
const SHOWN = 2000;

export function joinLink(token: string): string {
  return `${location.origin}/join/${token}`;
}

/** How students come in: the link to copy, and the code to read out. */
@Component({
  selector: 'cua-join-card',
  imports: [Button, Icon, QrDialog, Tip],
  template: `
    <ng-content select="h2" />
    <div class="ways">
      <button type="button" cuaButton (click)="copy()">
        <cua-icon [of]="copied() ? icons.Check : icons.Copy" [size]="18" />
        {{ copied() ? 'Copied' : 'Copy link' }}
      </button>
      <button
        type="button"
        cuaButton
        class="square"
        aria-label="Show as a picture to scan"
        cuaTip="Show as a picture to scan"
        (click)="showing.set(true)"
      >
        <cua-icon [of]="icons.QrCode" [size]="20" />
      </button>
    </div>
    <p>
      or at <b>{{ host }}/join</b> with the code
      <b class="code" [attr.aria-label]="spelled()">{{ code() }}</b>
    </p>
    @if (showing()) {
      <cua-qr-dialog [link]="link()" (closed)="showing.set(false)" />
    }
  `,
  styleUrl: './join-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinCard {
  readonly course = input.required<{ readonly linkToken: string; readonly joinCode: string }>();
  protected readonly icons = { Check, Copy, QrCode };
  protected readonly host = location.host;
  private readonly told = new Passing<true>(SHOWN);
  protected readonly copied = computed(() => this.told.now() !== null);
  protected readonly showing = signal(false);
  protected readonly link = computed(() => joinLink(this.course().linkToken));
  /** In groups, as it is read out. */
  protected readonly code = computed(() => {
    const { joinCode } = this.course();
    return `${joinCode.slice(0, 3)} ${joinCode.slice(3)}`;
  });
  protected readonly spelled = computed(() => [...this.course().joinCode].join(' '));

  protected async copy(): Promise<void> {
    if (await copyText(this.link())) this.told.say(true);
  }
}
