import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  viewChild,
} from '@angular/core';
import { MAX_FORMULA } from '@cuaderno/core/kinds';
import { Tip } from '../../ui/tip/tip';
import { FORMULA_SIZES } from '../kinds/formula/style';
import type { FormulaStyle } from '../kinds/formula/style';
import type { FormulaDraft } from './formula-writer';

/** What a button writes, in both notations; `|` is where one goes on writing. */
interface FormulaPart {
  readonly sign: string;
  readonly label: string;
  readonly latex: string;
  readonly typed: string;
}

const PARTS: readonly FormulaPart[] = [
  { sign: 'a⁄b', label: 'Fraction', latex: '\\frac{|}{}', typed: '(|)/()' },
  { sign: 'xⁿ', label: 'Power', latex: '^{|}', typed: '^(|)' },
  { sign: 'xₙ', label: 'Index', latex: '_{|}', typed: '_(|)' },
  { sign: '√', label: 'Root', latex: '\\sqrt{|}', typed: 'sqrt(|)' },
  { sign: 'Σ', label: 'Sum', latex: '\\sum_{|}^{}', typed: 'sum_(|)^()' },
  { sign: '∫', label: 'Integral', latex: '\\int_{|}^{}', typed: 'int_(|)^()' },
  { sign: '·', label: 'Times', latex: '\\cdot |', typed: '* |' },
  { sign: '≤', label: 'At most', latex: '\\le |', typed: '<= |' },
  { sign: '≠', label: 'Not equal', latex: '\\ne |', typed: '!= |' },
  { sign: 'π', label: 'Pi', latex: '\\pi |', typed: 'pi |' },
  { sign: 'α', label: 'Alpha', latex: '\\alpha |', typed: 'alpha |' },
  { sign: '°', label: 'Degrees', latex: '^\\circ |', typed: '^@ |' },
  { sign: '→', label: 'Arrow', latex: '\\to |', typed: '-> |' },
  { sign: '(⋮)', label: 'Column', latex: '\\binom{|}{}', typed: '((|),())' },
];

/** Where formulas are written: a bar of its own below the page, which shows the formula meanwhile. */
@Component({
  selector: 'cua-formula-bar',
  imports: [Tip],
  templateUrl: './formula-bar.html',
  styleUrl: './formula-bar.scss',
  host: { role: 'group', 'aria-label': 'Formula' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FormulaBar {
  readonly draft = input.required<FormulaDraft>();
  readonly problem = input<string | null>(null);
  readonly written = output<string>();
  readonly styled = output<Partial<FormulaStyle>>();
  readonly done = output();
  readonly givenUp = output();

  protected readonly most = MAX_FORMULA;
  protected readonly parts = PARTS;
  protected readonly hint = computed(() =>
    this.draft().notation === 'typed'
      ? 'As on a keyboard: sqrt(x^2+1)/2'
      : 'LaTeX: \\frac{\\sqrt{x^2+1}}{2}',
  );
  protected readonly sizes = computed(() => {
    const size = Math.round(this.draft().size);
    return FORMULA_SIZES.some((one) => one === size)
      ? [...FORMULA_SIZES]
      : [...FORMULA_SIZES, size].sort((a, b) => a - b);
  });
  protected readonly size = computed(() => Math.round(this.draft().size));
  private readonly field = viewChild.required<ElementRef<HTMLTextAreaElement>>('field');

  constructor() {
    afterNextRender(() => {
      const { nativeElement: field } = this.field();
      field.focus();
      field.select();
    });
  }

  /** Writes a part where the cursor is; what is marked goes into it. */
  protected put(part: FormulaPart): void {
    const { nativeElement: field } = this.field();
    const { value, selectionStart: from, selectionEnd: to } = field;
    const [before, after] = part[this.draft().notation].split('|') as [string, string];
    const marked = value.slice(from, to);
    field.value = value.slice(0, from) + before + marked + after + value.slice(to);
    const at = from + before.length + marked.length;
    field.focus();
    field.setSelectionRange(at, at);
    this.written.emit(field.value);
  }

  protected key(event: KeyboardEvent): void {
    // While a word is composed, Enter belongs to that.
    if (event.isComposing) return;
    if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      this.done.emit();
    }
    if (event.key === 'Escape') this.givenUp.emit();
  }
}
