import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { ButtonModule } from 'primeng/button';
import { DialogModule } from 'primeng/dialog';

/** What changed when slides became pages, as the server tells it. */
export interface ImportReport {
  readonly slides: number;
  readonly changed: readonly SlideReport[];
}

interface SlideReport {
  readonly number: number;
  readonly title: string;
  readonly fonts: readonly { readonly asked: string; readonly used: string | null }[];
  readonly flattened: boolean;
  readonly hidden: boolean;
  readonly notes: boolean;
  readonly media: readonly { readonly name: string; readonly problem: string | null }[];
}

/** What is to be said of one slide, a sentence for each thing. */
export function sentences({ fonts, flattened, hidden, media }: SlideReport): string[] {
  return [
    ...fonts.map(({ asked, used }) => `${asked} isn’t here: ${used ?? 'another font'} stands in.`),
    ...(flattened ? ['What moved or came one after the other stands still.'] : []),
    ...(hidden ? ['It was hidden, and is held back.'] : []),
    ...media.map(({ name, problem }) =>
      problem === null ? `${name} plays where it lay.` : `${name} is missing. ${problem}`,
    ),
  ];
}

/** In a few words, what a report says in all. */
export function inShort({ slides, changed }: ImportReport): string {
  const fonts = new Set(changed.flatMap((slide) => slide.fonts.map(({ asked }) => asked))).size;
  const still = changed.filter(({ flattened }) => flattened).length;
  const lost = changed.flatMap(({ media }) => media.filter(({ problem }) => problem)).length;
  const count = (n: number, one: string, many: string): string[] =>
    n === 0 ? [] : [n === 1 ? one : `${n} ${many}`];
  const parts = [
    ...count(fonts, 'one font was replaced', 'fonts were replaced'),
    ...count(still, 'one slide no longer moves', 'slides no longer move'),
    ...count(lost, 'one sound or film is missing', 'sounds or films are missing'),
  ];
  const came = slides === 1 ? 'One slide came in' : `${slides} slides came in`;
  return parts.length > 0
    ? `${came}: ${parts.join(', ')}.`
    : `${came} as ${slides === 1 ? 'it was' : 'they were'}.`;
}

/** Says slide by slide what changed on the way in. */
@Component({
  selector: 'cua-report-sheet',
  imports: [ButtonModule, DialogModule],
  template: `
    <p-dialog
      closeAriaLabel="Close"
      header="What changed in the slides"
      [visible]="true"
      [modal]="true"
      [draggable]="false"
      (visibleChange)="closed.emit()"
    >
      <p class="short">{{ short() }} Titles became names of pages, notes their margins.</p>
      <ol>
        @for (slide of report().changed; track slide.number) {
          <li>
            <button type="button" class="go" (click)="chosen.emit(slide.number)">
              Slide {{ slide.number }}
            </button>
            <bdi>{{ slide.title }}</bdi>
            <ul>
              @for (words of say(slide); track $index) {
                <li>{{ words }}</li>
              }
            </ul>
          </li>
        } @empty {
          <li class="none">Nothing else changed.</li>
        }
      </ol>
      <div class="buttons">
        <p-button label="All right" (onClick)="closed.emit()" />
      </div>
    </p-dialog>
  `,
  styleUrl: './report-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReportSheet {
  readonly report = input.required<ImportReport>();
  /** Number of a slide that is to be looked at. */
  readonly chosen = output<number>();
  readonly closed = output();
  protected readonly short = computed(() => inShort(this.report()));
  protected readonly say = sentences;
}
