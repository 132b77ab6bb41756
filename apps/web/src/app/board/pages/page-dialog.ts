import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { MAX_SIDE, MIN_SIDE, MM, PAGE_SIZES, SPACINGS } from '@cuaderno/core/board';
import { readableTint, TINTS } from '@cuaderno/core/ink';
import type { DrawnPaper, PageSize, PageSpec, Paper } from '@cuaderno/core/board';
import { CheckboxModule } from 'primeng/checkbox';
import { InputNumberModule } from 'primeng/inputnumber';
import { InputTextModule } from 'primeng/inputtext';
import { LIST } from '../../ui/list/list';
import { Button } from '../../ui/button/button';
import { Tip } from '../../ui/tip/tip';
import { PaperPicture } from './paper-picture';
import { FORM } from '../../ui/forms/form';
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
    Button,
    CheckboxModule,
    DIALOG,
    FORM,
    InputNumberModule,
    InputTextModule,
    PaperPicture,
    LIST,
    Tip,
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
  /** Lengths in mm, as rulers say it. */
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: '',
    apart: 0,
    sizeName: 'own',
    width: 0 as number | null,
    height: 0 as number | null,
    /** Whether empty pages of this board are to be like this one. */
    forNew: false,
  });
  private readonly values = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  protected readonly kind = linkedSignal<Paper['kind']>(() => this.page().paper.kind);
  protected readonly tint = linkedSignal(() => this.page().paper.tint);
  protected readonly width = computed(() => this.values().width ?? 0);
  protected readonly height = computed(() => this.values().height ?? 0);

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
    const own = this.values().apart ?? 0;
    const all = own > 0 && !offered.includes(own) ? [...offered, own] : offered;
    return all.map((mm) => ({ label: `${mm} mm`, value: mm }));
  });
  protected readonly sizes = [
    ...PAGE_SIZES.map(({ name, label }) => ({ label, value: name as string })),
    { label: 'Own size', value: 'own' },
  ];
  private readonly sizeName = computed(() => {
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

  constructor() {
    effect(() => {
      const { name, paper, width, height } = this.page();
      const apart = 'spacing' in paper ? round(paper.spacing / MM) : 0;
      this.form.patchValue({ name, apart, width: round(width / MM), height: round(height / MM) });
    });
    const { sizeName } = this.form.controls;
    effect(() => sizeName.setValue(this.sizeName(), { emitEvent: false }));
    sizeName.valueChanges.pipe(takeUntilDestroyed()).subscribe((name) => this.chooseSize(name));
  }

  protected choose(kind: PaperKind): void {
    this.kind.set(kind);
    this.form.patchValue({ apart: kind === 'plain' ? 0 : SPACINGS[kind][1] });
  }

  protected turn(): void {
    this.form.patchValue({ width: this.height(), height: this.width() });
  }

  protected chooseOwnTint(colour: string): void {
    this.tint.set(readableTint(colour));
  }

  protected done(): void {
    const { name, forNew } = this.form.getRawValue();
    this.chosen.emit({
      ...(this.count() === 1 ? { name: name.trim() } : {}),
      paper: this.paper(),
      forNew,
      ...this.size(),
    });
  }

  private chooseSize(name: string): void {
    const size = PAGE_SIZES.find((s) => s.name === name);
    if (size)
      this.form.patchValue({ width: round(size.width / MM), height: round(size.height / MM) });
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
    const apart = this.values().apart ?? 0;
    const mm = kind === this.kind() && apart > 0 ? apart : SPACINGS[kind][1];
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
