import type { Answer } from '@cuaderno/contract/route';
import type { uploadMaterial } from '@cuaderno/contract/routes/boards';
import type { Point } from '@cuaderno/core/geometry';
import type { Quad } from '@cuaderno/core/scan';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { ElementRef } from '@angular/core';
import { firstValueFrom, lastValueFrom } from 'rxjs';
import { untilAborted } from '../../api/api';
import { BoardsApi } from '../../api/boards-api';
import { FilesApi } from '../../api/files-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { Scanner } from './scanner';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** How far an arrow key moves a corner, in parts of the picture's longer side. */
const STEP = 1 / 400;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const CORNERS = ['Top left', 'Top right', 'Bottom right', 'Bottom left'] as const;

const BROKEN: ProblemDetails = {
  type: 'urn:cuaderno:not-straightened',
  title: 'This picture could not be straightened.',
  detail: 'Draw the corners further apart, so that they enclose the paper.',
};

/** A stored picture, in pixels. */
type Straightened = Pick<Answer<typeof uploadMaterial>, 'file' | 'width' | 'height'>;

/** Asks where the corners of the paper are on a picture; they were looked for already. */
@Component({
  selector: 'cua-straighten-dialog',
  imports: [Button, DIALOG, ProblemMessage],
  templateUrl: './straighten-dialog.html',
  styleUrl: './straighten-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StraightenDialog {
  readonly file = input.required<string>();
  readonly name = input('');
  readonly board = input.required<string>();
  readonly straightened = output<Straightened>();
  readonly closed = output();

  private readonly boardsApi = inject(BoardsApi);
  private readonly filesApi = inject(FilesApi);
  private readonly scanner = new Scanner();
  private readonly abort = new AbortController();
  private readonly picture = viewChild<ElementRef<SVGSVGElement>>('picture');
  protected readonly labels = CORNERS;
  protected readonly corners = signal<Quad | null>(null);
  private readonly found = signal<Quad | null>(null);
  protected readonly size = signal({ width: 1, height: 1 });
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);
  /** The corner that is carried. */
  private readonly carried = signal<number | null>(null);

  protected readonly outline = computed(() =>
    this.corners()
      ?.map(({ x, y }) => `${x},${y}`)
      .join(' '),
  );
  /** Size of a corner's handle: large enough for a finger, whatever the picture's size. */
  protected readonly handle = computed(() => Math.max(this.size().width, this.size().height) / 34);
  protected readonly moved = computed(() => this.corners() !== this.found());

  constructor() {
    effect(() => {
      const file = this.file();
      untracked(() => void this.look(file));
    });
    inject(DestroyRef).onDestroy(() => {
      this.abort.abort();
      this.scanner.close();
    });
  }

  protected lift(event: PointerEvent, corner: number): void {
    (event.target as Element).setPointerCapture(event.pointerId);
    this.carried.set(corner);
  }

  protected carry(event: PointerEvent): void {
    const corner = this.carried();
    const svg = this.picture()?.nativeElement;
    const map = svg?.getScreenCTM()?.inverse();
    if (corner === null || !map) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(map);
    this.put(corner, { x, y });
  }

  protected drop(): void {
    this.carried.set(null);
  }

  protected nudge(event: KeyboardEvent, corner: number): void {
    const arrow = ARROWS[event.key];
    const at = this.corners()?.[corner];
    if (!arrow || !at) return;
    event.preventDefault();
    const step = Math.max(this.size().width, this.size().height) * STEP * (event.shiftKey ? 8 : 1);
    this.put(corner, { x: at.x + arrow[0] * step, y: at.y + arrow[1] * step });
  }

  protected asFound(): void {
    this.corners.set(this.found());
  }

  protected async straighten(): Promise<void> {
    const corners = this.corners();
    if (!corners) return;
    this.busy.set(true);
    this.problem.set(null);
    try {
      const flat = await this.scanner.flatten(corners).catch(() => null);
      if (!flat) return this.problem.set(BROKEN);
      const uploaded = this.boardsApi.uploadMaterial(this.board(), flat, {
        name: `${this.name() || 'Scan'}, straightened.jpg`,
      });
      this.straightened.emit(await lastValueFrom(uploaded.pipe(untilAborted(this.abort.signal))));
    } catch (error) {
      if (!this.abort.signal.aborted) this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }

  /** A corner stays within a tenth of the picture around it. */
  private put(corner: number, at: Point): void {
    const { width, height } = this.size();
    const between = (value: number, most: number): number =>
      Math.min(most * 1.1, Math.max(most * -0.1, value));
    const place = { x: between(at.x, width), y: between(at.y, height) };
    this.corners.update(
      (corners) => corners && (corners.map((old, i) => (i === corner ? place : old)) as never),
    );
  }

  private async look(file: string): Promise<void> {
    try {
      const bytes = await firstValueFrom(this.filesApi.readFile(file));
      const found = await this.scanner.find(new Blob([bytes.slice()]));
      this.size.set({ width: found.width, height: found.height });
      this.found.set(found.corners);
      this.corners.set(found.corners);
    } catch (error) {
      this.problem.set(
        error instanceof Error && error.name === 'ScanError' ? BROKEN : problemOf(error),
      );
    }
  }
}
