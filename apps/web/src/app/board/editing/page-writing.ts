import { computed } from '@angular/core';
import type { Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { TextMark } from '../../ui/rich-text/text-marks';
import type { BoardSession } from '../../live/board-session';
import { formulaStyle } from '../kinds/formula/style';
import type { FormulaStyle } from '../kinds/formula/style';
import type { Written } from '../kinds/kind';
import { editorOf } from '../kinds/register';
import { textStyle } from '../kinds/text/style';
import type { TextStyle } from '../kinds/text/style';
import type { Tools } from '../tool/tool';
import { EditorAhead } from './editor-ahead';
import { FormulaWriter } from './formula-writer';
import { TextWriter } from './text-writer';

/** The field in which a text is written on the page. */
export interface TextField {
  /** Hands on what was typed and hasn't been yet. */
  flush(): void;
  focus(): void;
  write(mark: TextMark): void;
}

/** Texts, slips and formulas that are written on the page: one at a time. */
export class PageWriting {
  readonly texts: TextWriter;
  readonly formulas: FormulaWriter;
  /** What is typed before the field has come. */
  readonly ahead = new EditorAhead();
  /** What is being written is drawn by who writes it. */
  readonly hiding = computed(() => this.texts.hiding() ?? this.formulas.lifted());
  /** What is being written just now, for the tools beside it. */
  readonly now = computed<Written | null>(() => {
    const text = this.texts.draft()?.spec;
    if (!text && !this.formulas.draft()) return null;
    return {
      text: text ?? null,
      restyle: (to) => {
        if (text) this.restyleText(to);
        else if (to.ink) this.restyleFormula({ ink: to.ink });
      },
      mark: (mark) => this.field()?.write(mark),
    };
  });

  /** @param field in which a text is written, once it has come */
  constructor(
    session: () => BoardSession,
    private readonly tools: Tools,
    private readonly field: () => TextField | undefined,
  ) {
    this.texts = new TextWriter(session, () => tools.layer());
    this.formulas = new FormulaWriter(session, () => tools.layer());
  }

  /**
   * A text or formula is written at a place of a page, or the one that is there is opened.
   * @returns whether it is a formula that has been opened: its bar takes some of the window
   */
  async open(page: Id, at: Point, item: Item | null): Promise<boolean> {
    this.field()?.flush();
    this.texts.close();
    const formula = (item ? editorOf(item) : this.tools.tool()) === 'formula';
    // Words that are typed at once find their field: it is waited only for a formula that is open.
    if (this.formulas.draft() && !(await this.formulas.close())) return false;
    if (formula) this.formulas.open(page, at, item, formulaStyle.value());
    else {
      this.ahead.typed.set('');
      this.texts.open(page, at, item, textStyle.value(), this.tools.tool() === 'slip');
    }
    return formula;
  }

  /** What was being written is finished. */
  finish(): void {
    this.field()?.flush();
    this.texts.close();
    void this.formulas.close();
  }

  /** Whether a key is a letter of the text whose field hasn't come yet; it has it by then. */
  takes(event: KeyboardEvent): boolean {
    return this.texts.draft() !== null && !this.field() && this.ahead.takes(event);
  }

  /** How a formula looks: the one that is being written, or the next. */
  restyleFormula(to: Partial<FormulaStyle>): void {
    formulaStyle.set(to);
    void this.formulas.restyle(to);
  }

  private restyleText(to: Partial<TextStyle>): void {
    textStyle.set(to);
    this.field()?.flush();
    this.texts.restyle(to);
    this.field()?.focus();
  }
}
