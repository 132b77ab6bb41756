import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { boardFromSnapshot, unpack } from '@cuaderno/core';
import type { Board, BoardSnapshot, Id } from '@cuaderno/core';
import { ButtonModule } from 'primeng/button';
import { TableModule } from 'primeng/table';
import { Api, troubleOf } from '../../api/api';
import type { Trouble } from '../../api/api';
import type { Attendance, RecordInfo } from '../../api/shapes';
import { MediaLayer } from '../../media/media-layer';
import { PageStrip } from '../../pages/page-strip';
import { PaperSource } from '../../stage/paper-source';
import { Stage } from '../../stage/stage';
import { download } from '../../export/download';
import { sayClock, sayDate, sayLength, saySpan } from '../../time/say-time';

/** What a closed lesson has left: its pages as they stood, and who was there. */
@Component({
  selector: 'cua-record',
  imports: [ButtonModule, MediaLayer, PageStrip, RouterLink, Stage, TableModule],
  templateUrl: './record.html',
  styleUrl: './record.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordScreen {
  /** From the address. */
  readonly lesson = input.required<string>();

  private readonly api = inject(Api);
  protected readonly stage = viewChild(Stage);
  protected readonly papers = new PaperSource();
  protected readonly record = signal<RecordInfo | null>(null);
  protected readonly attendance = signal<readonly Attendance[]>([]);
  protected readonly board = signal<Board | null>(null);
  protected readonly page = signal<Id | null>(null);
  protected readonly trouble = signal<Trouble | null>(null);
  /** Set while the PDF is being made; aborting it stops that. */
  protected readonly making = signal<AbortController | null>(null);
  protected readonly say = { clock: sayClock, date: sayDate, length: sayLength, span: saySpan };
  protected readonly rows = computed(() =>
    this.attendance().map((person) => ({
      ...person,
      label: person.nth > 1 ? `${person.name} (${person.nth})` : person.name,
      total: sayLength(person.spans.reduce((sum, { from, to }) => sum + to - from, 0)),
    })),
  );

  constructor() {
    effect(() => {
      this.lesson();
      untracked(() => void this.load());
    });
    inject(DestroyRef).onDestroy(() => {
      this.making()?.abort();
      this.papers.close();
    });
  }

  protected async load(): Promise<void> {
    this.trouble.set(null);
    try {
      const path = `/records/${this.lesson()}`;
      const { record, attendance } = await this.api.get<{
        record: RecordInfo;
        attendance: Attendance[];
      }>(path);
      this.record.set(record);
      this.attendance.set(attendance);
      const snapshot = unpack(await this.api.bytes(`${path}/board`)) as BoardSnapshot;
      this.board.set(boardFromSnapshot(snapshot));
    } catch (error) {
      this.trouble.set(troubleOf(error));
    }
  }

  protected async download(): Promise<void> {
    const abort = new AbortController();
    this.making.set(abort);
    this.trouble.set(null);
    try {
      const { blob, name } = await this.api.download(`/records/${this.lesson()}/pdf`, abort.signal);
      download(blob, name);
    } catch (error) {
      if (!abort.signal.aborted) this.trouble.set(troubleOf(error));
    } finally {
      this.making.set(null);
    }
  }
}
