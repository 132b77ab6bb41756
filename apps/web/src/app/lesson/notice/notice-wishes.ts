import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { CheckboxModule } from 'primeng/checkbox';
import { NOTICE_KINDS, NOTICE_WAYS, Notices } from './notices';
import { DIALOG } from '../../ui/popup/dialog';

/** Of what a tutor wants notice, and how. */
@Component({
  selector: 'cua-notice-wishes',
  imports: [CheckboxModule, DIALOG, FormsModule],
  template: `
    <cua-dialog header="Notices" (closed)="closed.emit()">
      <table>
        <thead>
          <tr>
            <td></td>
            @for (way of ways; track way.way) {
              <th scope="col">{{ way.label }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (kind of kinds; track kind.kind) {
            <tr>
              <th scope="row">{{ kind.label }}</th>
              @for (way of ways; track way.way) {
                <td>
                  <label>
                    <p-checkbox
                      [binary]="true"
                      [ariaLabel]="kind.label + ': ' + way.label"
                      [ngModel]="notices.wishes()[kind.kind][way.way]"
                      (ngModelChange)="notices.wish(kind.kind, way.way, $event)"
                    />
                  </label>
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
      @if (refused) {
        <p class="note">
          This browser doesn’t let Cuaderno notify you while its window is behind.
          {{
            secure
              ? 'Allow it in the browser’s settings for this site.'
              : 'It would at an address that begins with https.'
          }}
        </p>
      }
    </cua-dialog>
  `,
  styles: `
    th {
      padding: var(--space-2) var(--space-6) var(--space-2) 0;
      font-weight: 400;
      text-align: left;
    }
    thead th {
      color: var(--ink-soft);
      font-size: var(--size-m);
    }
    label {
      display: grid;
      place-items: center;
      min-width: 44px;
      min-height: 44px;
    }
    input {
      width: 20px;
      height: 20px;
    }
    .note {
      max-width: 26rem;
      color: var(--ink-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoticeWishes {
  readonly closed = output();
  protected readonly notices = inject(Notices);
  protected readonly kinds = NOTICE_KINDS;
  protected readonly ways = NOTICE_WAYS;
  protected readonly refused =
    typeof Notification === 'undefined' || Notification.permission === 'denied' || !isSecureContext;
  protected readonly secure = isSecureContext;
}
