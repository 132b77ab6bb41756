import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MAX_SIDE, MIN_SIDE, MM, PAGE_SIZES, readableTint, SPACINGS, TINTS } from '@cuaderno/core';
import type { DrawnPaper, PageSize, PageSpec, Paper } from '@cuaderno/core';
import { ButtonModule } from 'primeng/button';
import { CheckboxModule } from 'primeng/checkbox';
import { InputTextModule } from 'primeng/inputtext';
import { SelectModule } from 'primeng/select';
import { PaperPicture } from './paper-picture';
import { DIALOG } from '../../ui/popup/dialog';

type PaperKind = DrawnPaper['kind'];

const KINDS: readonly { kind: PaperKind; label: string; apart: string }[] = [
  { kind: 'plain', label: 'Plain', apart: '' },
  { kind: 'ruled', label: 'Ruled', apart: 'Lines apart' },
  { kind: 'squared', label: 'Squared', apart: 'Side of a square' },
  { kind: 'dotted', label: 'Dotted', apart: 'Dots apart' },
  { kind: 'guides', label: 'Handwriting', apart: 'Height of small letters' },
  { kind: 'staves', label: 'Staves', apart: 'Height of a staff' },
];

/** Name, paper and size of pages; no name where there are several. */
export type PageSetup = { name?: string; paper: Paper; forNew: boolean } & PageSize;

/** Asks what a page is called and printed with, and how large it is. */
@Component({
  selector: 'cua-page-dialog',
  imports: [
    ButtonModule,
    CheckboxModule,
    DIALOG,
    FormsModule,
    InputTextModule,
    PaperPicture,
    SelectModule,
  ],
  templateUrl: './page-dialog.html',
  styleUrl: './page-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageDialog {
  readonly page = input.required<PageSpec>();
  readonly number = input.required<string>();
  /** How many pages are set up, this one and others. */
  readonly count = input(1);
  readonly chosen = output<PageSetup>();
  readonly closed = output();

  protected readonly tints = TINTS;
  /** Whether empty pages of this board are to be like this one. */
  protected readonly forNew = signal(false);
  protected readonly name = linkedSignal(() => this.page().name);
  protected readonly kind = linkedSignal<Paper['kind']>(() => this.page().paper.kind);
  /** In mm, as rulers say it. */
  protected readonly apart = linkedSignal<number>(() => {
    const { paper } = this.page();
    return 'spacing' in paper ? round(paper.spacing / MM) : 0;
  });
  protected readonly tint = linkedSignal(() => this.page().paper.tint);
  protected readonly width = linkedSignal(() => round(this.page().width / MM));
  protected readonly height = linkedSignal(() => round(this.page().height / MM));

  /** An imported page keeps its print and size. */
  protected readonly printed = computed(() => this.page().paper.kind === 'pdf');
  protected readonly size = computed<PageSize>(() => ({
    width: side(this.width(), this.page().width),
    height: side(this.height(), this.page().height),
  }));
  protected readonly paper = computed(() => this.paperOf(this.kind()));
  protected readonly kinds = computed(() =>
    KINDS.map((kind) => ({ ...kind, paper: this.paperOf(kind.kind) })),
  );
  protected readonly apartLabel = computed(
    () => KINDS.find(({ kind }) => kind === this.kind())?.apart ?? '',
  );
  protected readonly spacings = computed(() => {
    const kind = this.kind();
    const offered: readonly number[] = kind === 'plain' || kind === 'pdf' ? [] : SPACINGS[kind];
    const own = this.apart();
    const all = own > 0 && !offered.includes(own) ? [...offered, own] : offered;
    return all.map((mm) => ({ label: `${mm} mm`, value: mm }));
  });
  protected readonly sizes = [
    ...PAGE_SIZES.map(({ name, label }) => ({ label, value: name as string })),
    { label: 'Own size', value: 'own' },
  ];
  protected readonly sizeName = computed(() => {
    const { width, height } = this.size();
    const found = PAGE_SIZES.find(
      (s) => near(s.width, width, s.height, height) || near(s.height, width, s.width, height),
    );
    return found?.name ?? 'own';
  });
  /** A tint of one's own is as light as it must be for ink to be read on it. */
  protected readonly ownTint = computed(
    () => this.tint() !== undefined && !TINTS.some(({ colour }) => colour === this.tint()),
  );

  protected choose(kind: PaperKind): void {
    this.kind.set(kind);
    this.apart.set(kind === 'plain' ? 0 : SPACINGS[kind][1]);
  }

  protected chooseSize(name: string): void {
    const size = PAGE_SIZES.find((s) => s.name === name);
    if (!size) return;
    this.width.set(round(size.width / MM));
    this.height.set(round(size.height / MM));
  }

  protected turn(): void {
    const width = this.width();
    this.width.set(this.height());
    this.height.set(width);
  }

  protected chooseOwnTint(colour: string): void {
    this.tint.set(readableTint(colour));
  }

  protected done(): void {
    this.chosen.emit({
      ...(this.count() === 1 ? { name: this.name().trim() } : {}),
      paper: this.paper(),
      forNew: this.forNew(),
      ...this.size(),
    });
  }

  private paperOf(kind: Paper['kind']): Paper {
    const tint = this.tint() ? { tint: this.tint() } : {};
    const { paper } = this.page();
    if (paper.kind === 'pdf') {
      const print: Paper = { ...paper };
      delete print.tint;
      return { ...print, ...tint };
    }
    if (kind === 'plain' || kind === 'pdf') return { kind: 'plain', ...tint };
    const mm = kind === this.kind() && this.apart() > 0 ? this.apart() : SPACINGS[kind][1];
    return { kind, spacing: mm * MM, ...tint };
  }
}

function round(mm: number): number {
  return Math.round(mm * 10) / 10;
}

/** A side in points; as it was where nothing else was typed, for mm are rounded. */
function side(mm: number, was: number): number {
  if (round(was / MM) === mm) return was;
  const known = PAGE_SIZES.flatMap(({ width, height }) => [width, height]).find(
    (points) => round(points / MM) === mm,
  );
  return Math.min(MAX_SIDE, Math.max(MIN_SIDE, known ?? (mm || 0) * MM));
}

function near(a: number, b: number, c: number, d: number): boolean {
  return Math.abs(a - b) < 0.5 && Math.abs(c - d) < 0.5;
}
