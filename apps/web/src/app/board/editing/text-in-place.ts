import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  viewChild,
} from '@angular/core';
import { corners } from '@cuaderno/core/geometry';
import { SLIP_EDGE } from '@cuaderno/core/kinds';
import { eastAsianIn, plainText } from '@cuaderno/core/text';
import type { Id } from '@cuaderno/core/id';
import type { RichText } from '@cuaderno/core/text';
import { TextEditor } from '../../ui/rich-text/text-editor';
import type { TextMark } from '../../ui/rich-text/text-marks';
import type { Stage } from '../stage/stage';
import { families } from '../drawing/text-fonts';
import type { TextDraft } from '../kinds/text/laid-out';

/** A text being written on the page itself, where and as it will stand. */
@Component({
  selector: 'cua-text-in-place',
  imports: [TextEditor],
  template: `
    <div
      class="place"
      [class.slip]="draft().slip"
      [style.left.px]="at().x"
      [style.top.px]="at().y"
      [style.width.px]="draft().frame.width * zoom()"
      [style.min-height.px]="draft().frame.height * zoom()"
      [style.padding.px]="(draft().slip ? edge : 0) * zoom()"
      [style.background]="draft().slip ?? 'transparent'"
      [style.color]="draft().colour"
      [style.font-family]="families()"
      [style.font-size.px]="draft().size * zoom()"
      [style.text-align]="align()"
      [style.transform]="'rotate(' + draft().frame.turn + 'deg)'"
    >
      <cua-text-editor
        [bare]="true"
        [text]="draft().text"
        label="Text on the page"
        (changed)="changed.emit($event)"
        (left)="leave($event)"
      />
    </div>
  `,
  styleUrl: './text-in-place.scss',
  host: { '(keydown.escape)': 'finish()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextInPlace {
  readonly stage = input.required<Stage>();
  readonly page = input.required<Id>();
  readonly draft = input.required<TextDraft>();
  /** What was typed while the editor was on its way. */
  readonly typed = input('');
  readonly changed = output<RichText>();
  readonly done = output();
  private readonly editor = viewChild.required(TextEditor);
  protected readonly families = computed(() => {
    const { font, text } = this.draft();
    return families(font, eastAsianIn(plainText(text)));
  });
  protected readonly edge = SLIP_EDGE;
  protected readonly zoom = computed(() => this.stage().view.zoom());
  protected readonly at = computed(() => {
    const stage = this.stage();
    stage.moved();
    return stage.view.locate(this.page(), corners(this.draft().frame)[0]) ?? { x: 0, y: 0 };
  });
  protected readonly align = computed(() => {
    const { align } = this.draft();
    return align === 'middle' ? 'center' : align;
  });

  constructor() {
    afterNextRender(() => {
      this.editor().focus();
      this.editor().insert(this.typed());
    });
  }

  write(mark: TextMark): void {
    this.editor().write(mark);
  }

  focus(): void {
    this.editor().focus();
  }

  flush(): void {
    this.editor().flush();
  }

  /** Who goes to the tools to say how it is written has not finished. */
  protected leave(to: EventTarget | null): void {
    if (!(to instanceof Element && to.closest('cua-tool-bar'))) this.done.emit();
  }

  protected finish(): void {
    this.flush();
    this.done.emit();
    // Anyone who works by keys goes on from the page.
    this.stage().focus();
  }
}
