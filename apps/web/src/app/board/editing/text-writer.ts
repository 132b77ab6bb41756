import { computed, signal } from '@angular/core';
import { topOrder } from '@cuaderno/core/edits';
import { newId } from '@cuaderno/core/id';
import { inkColour } from '@cuaderno/core/ink';
import { changeItem } from '@cuaderno/core/ops';
import { plainText } from '@cuaderno/core/text';
import type { Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { TextSpec } from '@cuaderno/core/kinds';
import type { RichText } from '@cuaderno/core/text';
import type { BoardSession } from '../../live/board-session';
import type { DragPreview } from '../stage/pointer-tool';
import { loadFont } from '../drawing/text-fonts';
import type { TextStyle } from '../kinds/text/style';
import { laidOut, saysNothing } from '../kinds/text/laid-out';
import type { TextDraft } from '../kinds/text/laid-out';

/** Width of a text and side of a slip when they are new, in points. */
const WIDTH = 280;
const SLIP = 130;

interface Draft {
  readonly page: Id;
  readonly id: Id;
  readonly spec: TextDraft;
}

/** Writes texts and slips in place: what is typed is on the board whenever the keys rest. */
export class TextWriter {
  readonly draft = signal<Draft | null>(null);
  /** The text that is being written isn't drawn beneath what is typed. */
  readonly hiding = computed<DragPreview | null>(
    () => {
      const draft = this.draft();
      return draft && { page: draft.page, items: [], ids: new Set([draft.id]) };
    },
    { equal: (a, b) => a?.page === b?.page && [...(a?.ids ?? [])][0] === [...(b?.ids ?? [])][0] },
  );

  private last: Promise<void> = Promise.resolve();

  /** @param layer where new texts are laid */
  constructor(
    private readonly session: () => BoardSession,
    private readonly layer: () => TextSpec['layer'],
  ) {}

  /** Opens a text that is there, or begins one at a place. */
  open(page: Id, at: Point, item: Item | null, style: TextStyle, slip: boolean): void {
    if (item?.kind === 'text') {
      this.draft.set({ page, id: item.id, spec: draftOf(item) });
      return;
    }
    const here = this.session().board().pages.get(page);
    if (!here) return;
    const side = slip ? SLIP : Math.min(WIDTH, Math.max(60, here.width - at.x));
    const spec: TextDraft = {
      kind: 'text',
      layer: this.layer(),
      frame: {
        x: Math.max(0, Math.min(at.x, here.width - side)),
        y: slip ? at.y : at.y - style.size / 2,
        width: side,
        height: slip ? SLIP : style.size * 1.36,
        turn: 0,
      },
      text: [],
      font: style.font,
      size: style.size,
      colour: inkColour(style.ink),
      align: style.align,
      slip: slip ? style.slip : null,
    };
    this.draft.set({ page, id: newId(), spec });
  }

  /** What was typed so far goes onto the board, in the order in which it was typed. */
  write(text: RichText): Promise<void> {
    const draft = this.draft();
    return draft ? this.change(draft, { text }) : this.last;
  }

  /** What is being written looks like this from now on. */
  restyle({ ink, slip, ...to }: Partial<TextStyle>): void {
    const draft = this.draft();
    if (!draft) return;
    void this.change(draft, {
      ...to,
      ...(ink ? { colour: inkColour(ink) } : {}),
      ...(slip && draft.spec.slip ? { slip } : {}),
    });
  }

  /** Nothing more is written; a text without words goes. */
  close(): void {
    const draft = this.draft();
    if (!draft) return;
    this.draft.set(null);
    if (saysNothing(draft.spec.text)) void this.last.then(() => this.remove(draft));
  }

  private change(draft: Draft, to: Partial<TextDraft>): Promise<void> {
    const next = { ...draft, spec: { ...draft.spec, ...to } };
    this.draft.set(next);
    return (this.last = this.last.then(() => this.put(next)));
  }

  private async put({ page, id, spec: before }: Draft): Promise<void> {
    // Lines are broken by how wide the words are, so their font must be here.
    await loadFont(before.font, plainText(before.text));
    const spec = laidOut(before);
    const now = this.draft();
    if (now?.id === id) this.draft.set({ ...now, spec: { ...now.spec, frame: spec.frame } });
    const session = this.session();
    const here = session.board().pages.get(page);
    if (!here) return;
    if (here.items.has(id)) {
      const { text, frame, lines, font, size, align, slip, colour } = spec;
      const to = { text, frame, lines, font, size, align, slip, colour };
      const change = changeItem(session.board(), page, id, to);
      if (change) session.do(change);
    } else if (!saysNothing(spec.text)) {
      const item = { ...spec, order: topOrder(here) };
      session.do({ id, kind: 'item.add', page, item });
    }
  }

  private remove({ page, id }: Draft): void {
    const item = this.session().board().pages.get(page)?.items.get(id);
    if (item && !item.removed) this.session().do({ kind: 'items.remove', page, items: [id] });
  }
}

/** What of a text on the board is a draft: all but its place among others, and what the log knows. */
function draftOf(item: Item & TextSpec): TextDraft {
  const { kind, layer, frame, text, font, size, colour, align, slip } = item;
  return { kind, layer, frame, text, font, size, colour, align, slip };
}
