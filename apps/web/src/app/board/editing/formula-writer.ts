import { computed, signal } from '@angular/core';
import { topOrder } from '@cuaderno/core/edits';
import { newId } from '@cuaderno/core/id';
import { inkColour } from '@cuaderno/core/ink';
import { changeItem } from '@cuaderno/core/ops';
import type { Item } from '@cuaderno/core/board';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { FormulaSpec } from '@cuaderno/core/kinds';
import type * as Formulas from '@cuaderno/formats/formula';
import type { BoardSession } from '../../live/board-session';
import type { DragPreview } from '../stage/pointer-tool';
import type { FormulaStyle } from '../kinds/formula/style';
import { FormulaReader } from './formula-reader';

type Notation = FormulaSpec['notation'];
type SetFormula = Pick<FormulaSpec, 'outline' | 'box'>;

/** What of a formula is written; where its outlines lie is reckoned from it. */
export interface FormulaDraft {
  readonly page: Id;
  readonly id: Id;
  readonly source: string;
  readonly notation: Notation;
  readonly colour: string;
  /** Of its letters, in points. */
  readonly size: number;
  /** The left end and middle of where it stands, and its turn. */
  readonly at: Point;
  readonly turn: number;
  /** Its outlines, once it could be read. */
  readonly set: SetFormula | null;
  /** How it is read aloud, once that is known; empty until then. */
  readonly words: string;
}

/** How long the keys rest before what is written goes onto the board, in ms. */
const REST = 1200;
/** How long the end of writing waits for a formula to be put into words, in ms: it stands on the page without them, too. */
const WORDS_WAIT = 2000;
/** Units of an outline in the size of its letters. */
const UNITS = 1000;

/** Writes formulas: each is seen on its page as it is typed. */
export class FormulaWriter {
  readonly draft = signal<FormulaDraft | null>(null);
  /** Why what is written can't be read, in plain words; `null` where it can. */
  readonly problem = signal<string | null>(null);
  /** The formula as it will stand, in the place of what is on the board. */
  readonly lifted = computed<DragPreview | null>(() => {
    const draft = this.draft();
    if (!draft) return null;
    const item = draft.set && {
      ...specOf(draft, draft.set, this.layer()),
      ...NOWHERE,
      id: draft.id,
    };
    return { page: draft.page, items: item ? [item] : [], ids: new Set([draft.id]) };
  });

  private timer: ReturnType<typeof setTimeout> | undefined;
  private last: Promise<void> = Promise.resolve();
  /** What is written now, being put into words. */
  private reading: Promise<void> = Promise.resolve();
  private reader: FormulaReader | null = null;
  /** The window goes, maybe for good: nothing waits for words any more. */
  private readonly leaving = (): void => this.put();

  /** @param layer where new formulas are laid */
  constructor(
    private readonly session: () => BoardSession,
    private readonly layer: () => FormulaSpec['layer'],
  ) {}

  /** Opens a formula that is there, or begins one at a place. */
  open(page: Id, at: Point, item: Item | null, style: FormulaStyle): void {
    this.problem.set(null);
    // Fetched while the first letters are typed.
    void typesetter();
    this.reader ??= new FormulaReader();
    window.addEventListener('pagehide', this.leaving);
    if (item?.kind === 'formula') {
      const { id, source, notation, colour, frame, outline, box, words = '' } = item;
      this.draft.set({
        page,
        id,
        source,
        notation,
        colour,
        size: (frame.width / box.width) * UNITS,
        at: { x: frame.x, y: frame.y + frame.height / 2 },
        turn: frame.turn,
        set: { outline, box },
        words,
      });
      return;
    }
    const { notation, size, ink } = style;
    const colour = inkColour(ink);
    const id = newId();
    const none = { source: '', set: null, words: '' };
    this.draft.set({ page, id, notation, colour, size, at, turn: 0, ...none });
  }

  write(source: string): Promise<void> {
    return this.change({ source });
  }

  async restyle({ notation, size, ink }: Partial<FormulaStyle>): Promise<void> {
    const typed = (): FormulaDraft | null => {
      const draft = this.draft();
      const isTyped = draft?.notation === 'typed' && draft.source.trim() !== '';
      return notation === 'latex' && isTyped ? draft : null;
    };
    // Nobody waits where there is nothing to translate, and what is written by then is translated, too.
    const engine = typed() ? await typesetter() : null;
    const draft = typed();
    const translated = draft && engine ? { source: engine.latexOf(draft.source) } : {};
    void this.change({
      ...(notation ? { notation } : {}),
      ...translated,
      ...(size ? { size } : {}),
      ...(ink ? { colour: inkColour(ink) } : {}),
    });
  }

  /** What is written is on the board when this is done, if it can be read. */
  async flush(): Promise<void> {
    let last: Promise<void>;
    // What is written while its words are waited for is set before it is laid.
    do {
      last = this.last;
      await this.settled();
    } while (last !== this.last);
    this.put();
  }

  /**
   * Nothing more is written; returns whether that is so. What can't be read stays open, unless it is
   * `given up`. A formula without letters goes.
   */
  async close(givenUp = false): Promise<boolean> {
    const before = this.draft();
    if (!before) return true;
    await this.settled();
    const draft = this.draft();
    if (!draft || draft.id !== before.id) return true;
    const blank = draft.source.trim() === '';
    if (this.problem() !== null && !blank && !givenUp) return false;
    if (blank) this.remove(draft);
    else if (this.problem() === null) this.put();
    clearTimeout(this.timer);
    this.draft.set(null);
    this.problem.set(null);
    this.reader?.close();
    this.reader = null;
    window.removeEventListener('pagehide', this.leaving);
    return true;
  }

  /** All that was written is set, and in words, unless that takes too long. */
  private async settled(): Promise<void> {
    await this.last;
    // It is laid once, with its words: laid before them it would take two steps to undo.
    clearTimeout(this.timer);
    await Promise.race([this.reading, new Promise((done) => setTimeout(done, WORDS_WAIT))]);
  }

  private change(to: Partial<FormulaDraft>): Promise<void> {
    const draft = this.draft();
    if (!draft) return this.last;
    this.draft.set({ ...draft, ...to });
    return (this.last = this.last.then(() => this.set(draft.id)));
  }

  /** Sets what is written now; what was set before stays where that can't be read. */
  private async set(id: Id): Promise<void> {
    const { setFormula, mathMlOf, FormulaError } = await typesetter();
    const draft = this.draft();
    if (draft?.id !== id) return;
    const { source, notation } = draft;
    if (source.trim() === '') {
      this.problem.set(null);
      return this.draft.set({ ...draft, set: null, words: '' });
    }
    try {
      const set = await setFormula(source, notation);
      const now = this.draft();
      if (now?.id !== id || now.source !== source || now.notation !== notation) return;
      this.draft.set({ ...now, set, words: '' });
      this.problem.set(null);
      this.reading = this.read(now, mathMlOf(source, notation));
      clearTimeout(this.timer);
      this.timer = setTimeout(() => void this.flush(), REST);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      if (this.draft()?.source === source) this.problem.set(error.message);
    }
  }

  private async read({ id, source, notation }: FormulaDraft, mathml: string): Promise<void> {
    const words = (await this.reader?.read(mathml)) ?? '';
    const now = this.draft();
    if (now?.id !== id || now.source !== source || now.notation !== notation) return;
    this.draft.set({ ...now, words });
  }

  private put(): void {
    clearTimeout(this.timer);
    const draft = this.draft();
    if (!draft?.set || this.problem() !== null) return;
    const { page, id } = draft;
    const session = this.session();
    const here = session.board().pages.get(page);
    if (!here) return;
    const spec = specOf(draft, draft.set, this.layer());
    if (here.items.has(id)) {
      const { source, notation, colour, outline, box, words, frame } = spec;
      const to = { source, notation, colour, outline, box, words, frame };
      const change = changeItem(session.board(), page, id, to);
      if (change) session.do(change);
    } else session.do({ id, kind: 'item.add', page, item: { ...spec, order: topOrder(here) } });
  }

  private remove({ page, id }: FormulaDraft): void {
    const item = this.session().board().pages.get(page)?.items.get(id);
    if (item && !item.removed) this.session().do({ kind: 'items.remove', page, items: [id] });
  }
}

/** What the log would know of an item that isn't on the board. */
const NOWHERE = { by: '', at: 0, lesson: null, removed: null, order: 'a0' } as const;

function typesetter(): Promise<typeof Formulas> {
  return import('@cuaderno/formats/formula');
}

function specOf(
  draft: FormulaDraft,
  { outline, box }: SetFormula,
  layer: FormulaSpec['layer'],
): Omit<FormulaSpec, 'order'> {
  const { source, notation, colour, size, at, turn, words } = draft;
  const scale = size / UNITS;
  const [width, height] = [Math.max(1, box.width * scale), Math.max(1, box.height * scale)];
  const frame: Frame = { x: at.x, y: at.y - height / 2, width, height, turn };
  return {
    kind: 'formula',
    layer,
    source,
    notation,
    colour,
    outline,
    box: { width: box.width, height: box.height },
    words,
    frame,
  };
}
