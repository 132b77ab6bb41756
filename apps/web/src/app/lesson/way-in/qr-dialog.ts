import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { qrPath } from './qr-path';
import { DIALOG } from '../../ui/popup/dialog';

/** The join link as a picture that the camera of a phone or tablet reads. */
@Component({
  selector: 'cua-qr-dialog',
  imports: [DIALOG],
  template: `
    <cua-dialog header="Scan to come in" (closed)="closed.emit()">
      <svg
        role="img"
        aria-label="The join link as a QR code"
        [attr.viewBox]="'0 0 ' + code().size + ' ' + code().size"
        shape-rendering="crispEdges"
      >
        <rect width="100%" height="100%" fill="#fff" />
        <path [attr.d]="code().path" fill="#000" />
      </svg>
      <p>{{ link() }}</p>
    </cua-dialog>
  `,
  styles: `
    svg {
      display: block;
      width: min(70vw, 20rem);
      margin: 0 auto;
    }
    p {
      max-width: 20rem;
      margin: var(--space-4) auto 0;
      font-size: var(--size-s);
      text-align: center;
      overflow-wrap: anywhere;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QrDialog {
  readonly link = input.required<string>();
  readonly closed = output();
  protected readonly code = computed(() => qrPath(this.link()));
}
