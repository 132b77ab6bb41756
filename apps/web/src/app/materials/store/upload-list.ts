import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ProgressBarModule } from 'primeng/progressbar';
import { Button } from '../../ui/button/button';
import type { MaterialUpload } from './material-upload';
import { formatRemarks } from './remarks';
import { UploadQueue } from './upload-queue';

/** Files on their way that are shown one by one; of more, only how far they are together. */
const SHOWN = 4;

/** What is on its way to materials, what can't be taken, and what broke off last time. */
@Component({
  selector: 'cua-upload-list',
  imports: [Button, ProgressBarModule],
  templateUrl: './upload-list.html',
  styleUrl: './upload-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UploadList {
  protected readonly queue = inject(UploadQueue);
  protected readonly shown = computed(() =>
    this.queue
      .under()
      .filter((one) => one.state() !== 'waiting')
      .slice(0, SHOWN),
  );
  protected readonly count = computed(() => this.queue.under().length + this.queue.done());
  protected readonly remarks = computed(() => formatRemarks(this.queue.remarked()));
  protected readonly percent = (part: number): number => Math.round(part * 100);

  protected wordsOf(upload: MaterialUpload): string {
    switch (upload.state()) {
      case 'away':
        return 'Connection lost. It goes on by itself when the connection is back.';
      case 'reading':
        return 'Checking the file';
      default:
        return `${this.percent(upload.part())} %`;
    }
  }
}
