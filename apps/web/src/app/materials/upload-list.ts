import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ButtonModule } from 'primeng/button';
import { ProgressBarModule } from 'primeng/progressbar';
import type { MaterialUpload } from './material-upload';
import { sayRemarks } from './remarks';
import { UploadDesk } from './upload-desk';

/** Files on their way that are shown one by one; of more, only how far they are together. */
const SHOWN = 4;

/** What is on its way to materials, what can't be taken, and what broke off last time. */
@Component({
  selector: 'cua-upload-list',
  imports: [ButtonModule, ProgressBarModule],
  templateUrl: './upload-list.html',
  styleUrl: './upload-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UploadList {
  protected readonly desk = inject(UploadDesk);
  protected readonly shown = computed(() =>
    this.desk
      .under()
      .filter((one) => one.state() !== 'waiting')
      .slice(0, SHOWN),
  );
  protected readonly count = computed(() => this.desk.under().length + this.desk.done());
  protected readonly remarks = computed(() => sayRemarks(this.desk.remarked()));
  protected readonly percent = (part: number): number => Math.round(part * 100);

  protected say(upload: MaterialUpload): string {
    switch (upload.state()) {
      case 'away':
        return 'The line is away. It goes on by itself when the line is back.';
      case 'reading':
        return 'Looking at it';
      default:
        return `${this.percent(upload.part())} %`;
    }
  }
}
