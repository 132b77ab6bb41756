import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { same } from '@cuaderno/core/ops';
import { MAX_TEXT, plainText } from '@cuaderno/core/text';
import type { RichText } from '@cuaderno/core/text';
import { baseKeymap, chainCommands, splitBlockAs, toggleMark } from 'prosemirror-commands';
import type { Node } from 'prosemirror-model';
import { history, redo, undo } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { EditorState } from 'prosemirror-state';
import type { Command, Transaction } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { debounceTime, Subject } from 'rxjs';
import { Icon } from '../icons/icon';
import { Tip } from '../tip/tip';
import { fromDoc, schema, toDoc } from './schema';
import type { ListKind } from './schema';
import { TEXT_MARKS } from './text-marks';
import type { TextMark } from './text-marks';

/** How long the keys may rest before what was written is handed on, in ms. */
const REST = 800;

/** A field for text with weight, slant and lists. What is typed is handed on by itself. */
@Component({
  selector: 'cua-text-editor',
  imports: [Icon, Tip],
  templateUrl: './text-editor.html',
  styleUrl: './text-editor.scss',
  host: { '[class.bare]': 'bare()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextEditor {
  /** Before the outputs are there, so that what is not handed on yet still is when all goes. */
  private readonly onDestroy = this.keepTillTheEnd();
  readonly text = input.required<RichText>();
  readonly label = input.required<string>();
  readonly placeholder = input('');
  /** Without a bar of its own, and without an edge: for writing on the page itself. */
  readonly bare = input(false);
  /** Whether what is typed goes there as soon as it is there. */
  readonly takesFocus = input(false);
  /** The field was left, for what is told. */
  readonly left = output<EventTarget | null>();
  /** The text as it is after the keys have rested, or when the field is left. */
  readonly changed = output<RichText>();

  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  private view: EditorView | null = null;
  private gone = false;
  private readonly typed = new Subject<void>();
  /** What the field shows, as far as was handed in or out. */
  private known: RichText = [];
  protected readonly marks = TEXT_MARKS;
  protected readonly on = signal({ bold: false, slant: false, dots: false, numbers: false });
  protected readonly blank = signal(true);

  constructor() {
    afterNextRender(() => this.start());
    this.typed.pipe(debounceTime(REST), takeUntilDestroyed()).subscribe(() => this.flush());
    effect(() => {
      const text = this.text();
      untracked(() => this.adopt(text));
    });
    const flush = (): void => this.flush();
    // What was typed a moment ago is kept, also when the window closes.
    window.addEventListener('pagehide', flush);
    this.onDestroy(() => window.removeEventListener('pagehide', flush));
  }

  /** Hands on at once what hasn't been yet. */
  flush(): void {
    if (!this.view) return;
    const text = fromDoc(this.view.state.doc);
    if (same(text, this.known)) return;
    this.known = text;
    this.changed.emit(text);
  }

  focus(): void {
    this.view?.focus();
  }

  /** Puts words where the caret is. */
  insert(words: string): void {
    if (this.view && words !== '') this.view.dispatch(this.view.state.tr.insertText(words));
  }

  /** Writes what is chosen, or what is typed next, like this; or no longer. */
  write(mark: TextMark): void {
    this.run(
      mark === 'bold' || mark === 'slant' ? toggleMark(schema.marks[mark]) : toggleList(mark),
    );
  }

  private keepTillTheEnd(): (then: () => void) => void {
    const ref = inject(DestroyRef);
    ref.onDestroy(() => {
      this.flush();
      this.gone = true;
      this.view?.destroy();
      this.view = null;
    });
    return (then) => void ref.onDestroy(then);
  }

  private start(): void {
    this.view = new EditorView(this.box().nativeElement, {
      state: this.stateOf(this.known),
      attributes: () => ({
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': this.label(),
        dir: 'auto',
      }),
      handleDOMEvents: {
        blur: (_view, event) => {
          // It is left, too, when it is taken away; by then all was handed on.
          if (this.gone) return false;
          this.flush();
          this.left.emit(event.relatedTarget);
          return false;
        },
      },
      dispatchTransaction: (change) => this.dispatch(change),
    });
    this.note();
    if (this.takesFocus()) this.view.focus();
  }

  private stateOf(text: RichText): EditorState {
    return EditorState.create({
      doc: toDoc(text),
      plugins: [
        history(),
        keymap({
          'Mod-z': undo,
          'Mod-y': redo,
          'Shift-Mod-z': redo,
          'Mod-b': toggleMark(schema.marks.bold),
          'Mod-i': toggleMark(schema.marks.slant),
          Backspace: leaveList,
          Enter: chainCommands(leaveEmpty, splitBlockAs(likeIt)),
        }),
        keymap(baseKeymap),
      ],
    });
  }

  private dispatch(change: Transaction): void {
    const view = this.view!;
    const next = view.state.apply(change);
    if (change.docChanged && plainText(fromDoc(next.doc)).length > MAX_TEXT) return;
    view.updateState(next);
    this.note();
    if (change.docChanged) this.typed.next();
  }

  /** The text has changed elsewhere: undone, or written in another window. */
  private adopt(text: RichText): void {
    if (same(text, this.known)) return;
    this.known = text;
    this.view?.updateState(this.stateOf(text));
    this.note();
  }

  private run(command: Command): void {
    const view = this.view!;
    command(view.state, view.dispatch, view);
    view.focus();
  }

  private note(): void {
    const { state } = this.view ?? {};
    if (!state) return;
    const { from, to, empty, $from } = state.selection;
    const marked = (name: 'bold' | 'slant'): boolean => {
      const type = schema.marks[name];
      return empty
        ? type.isInSet(state.storedMarks ?? $from.marks()) !== undefined
        : state.doc.rangeHasMark(from, to, type);
    };
    const list = $from.parent.attrs['list'] as ListKind | null;
    this.on.set({
      bold: marked('bold'),
      slant: marked('slant'),
      dots: list === 'dots',
      numbers: list === 'numbers',
    });
    this.blank.set(state.doc.textContent === '' && state.doc.childCount === 1 && !list);
  }
}

/** Makes the chosen paragraphs a list of this kind, or plain ones again. */
function toggleList(kind: ListKind): Command {
  return (state, dispatch) => {
    const { from, to, $from } = state.selection;
    const list = $from.parent.attrs['list'] === kind ? null : kind;
    const change = state.tr;
    state.doc.nodesBetween(from, to, (node, pos) => {
      if (node.type === schema.nodes.paragraph) change.setNodeAttribute(pos, 'list', list);
    });
    dispatch?.(change);
    return true;
  };
}

/** At the start of a list's paragraph, Backspace takes its dot or number away first. */
const leaveList: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if (!empty || $from.parentOffset > 0 || $from.parent.attrs['list'] === null) return false;
  dispatch?.(state.tr.setNodeAttribute($from.before(), 'list', null));
  return true;
};

/** A new paragraph is of the same list. */
const likeIt = ({ type, attrs }: Node): { type: Node['type']; attrs: Node['attrs'] } => ({
  type,
  attrs,
});

/** In a list's paragraph without words, Enter ends the list. */
const leaveEmpty: Command = (state, dispatch, view) =>
  state.selection.$from.parent.content.size === 0 && leaveList(state, dispatch, view);
