import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { ImportReport, SlideReport } from '@cuaderno/formats/slides-in/report';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { EmptyState } from '../../ui/empty/empty-state';

/** What is to be said of one slide, a sentence for each item. */
export function sentences({ letters, flattened, hidden, media }: SlideReport): string[] {
  return [
    ...(letters.length > 0 ? [`No font here has ${listed(letters)}: boxes stand there.`] : []),
    ...(flattened ? ['What moved or came one after the other stands still.'] : []),
    ...(hidden ? ['It was hidden, and is hidden.'] : []),
    ...media.map(({ name, problem }) =>
      problem === null ? `${name} plays where it lay.` : `${name} is missing. ${problem}`,
    ),
  ];
}

/** Letters that are named of a slide at most. */
const NAMED = 12;

function listed(letters: readonly string[]): string {
  const more = letters.length - NAMED;
  return letters.slice(0, NAMED).join(' ') + (more > 0 ? ` and ${more} more` : '');
}

/** Where a font was replaced: `slides 2 and 5 to 9`. */
export function onSlides(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs.at(-1);
    if (last?.[1] === number - 1) last[1] = number;
    else runs.push([number, number]);
  }
  const words = runs.map(([from, to]) =>
    from === to ? `${from}` : to === from + 1 ? `${from}, ${to}` : `${from} to ${to}`,
  );
  const all = words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0]!;
  return `${numbers.length === 1 ? 'slide' : 'slides'} ${all}`;
}

/** In a few words, what a report says in all. */
export function inShort({ slides, fonts, changed }: ImportReport): string {
  const still = changed.filter(({ flattened }) => flattened).length;
  const unknown = changed.filter(({ letters }) => letters.length > 0).length;
  const lost = changed.flatMap(({ media }) => media.filter(({ problem }) => problem)).length;
  const count = (n: number, one: string, many: string): string[] =>
    n === 0 ? [] : [n === 1 ? one : `${n} ${many}`];
  const parts = [
    ...count(fonts.length, 'one font was replaced', 'fonts were replaced'),
    ...count(
      unknown,
      'one slide has letters that no font here has',
      'slides have letters that no font here has',
    ),
    ...count(still, 'one slide no longer moves', 'slides no longer move'),
    ...count(lost, 'one sound or film is missing', 'sounds or films are missing'),
  ];
  const came = slides === 1 ? 'One slide came in' : `${slides} slides came in`;
  return parts.length > 0
    ? `${came}: ${parts.join(', ')}.`
    : `${came} as ${slides === 1 ? 'it was' : 'they were'}.`;
}

/** What pages were given of their slides; nothing where they were given nothing. */
export function whatPagesHave({ named, noted }: ImportReport): string {
  const pages = (n: number, one: string, many: string): string =>
    n === 0 ? '' : n === 1 ? `One page ${one}.` : `${n} pages ${many}.`;
  return [
    pages(named ?? 0, 'is named after its slide’s title', 'are named after their slides’ titles'),
    pages(
      noted ?? 0,
      'has its slide’s notes in the margin',
      'have their slides’ notes in the margin',
    ),
  ]
    .filter((words) => words !== '')
    .join(' ');
}

/** Says slide by slide what changed on the way in. */
@Component({
  selector: 'cua-report-dialog',
  imports: [Button, DIALOG, EmptyState],
  template: `
    <cua-dialog header="What changed in the slides" (closed)="closed.emit()">
      <p class="short">{{ short() }} {{ have() }}</p>
      @if (report().fonts.length > 0) {
        <ul class="fonts" aria-label="Fonts">
          @for (font of report().fonts; track font.asked) {
            <li>
              <bdi>{{ font.asked }}</bdi> isn’t here: <bdi>{{ font.used }}</bdi> stands in on
              {{ on(font.slides) }}.
            </li>
          }
        </ul>
      }
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
          @if (report().fonts.length === 0) {
            <li cuaEmpty="plain">Nothing changed.</li>
          }
        }
      </ol>
      <div class="buttons">
        <button type="button" cuaButton="strong" (click)="closed.emit()">All right</button>
      </div>
    </cua-dialog>
  `,
  styleUrl: './report-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReportDialog {
  readonly report = input.required<ImportReport>();
  /** Number of a slide that is to be looked at. */
  readonly chosen = output<number>();
  readonly closed = output();
  protected readonly short = computed(() => inShort(this.report()));
  protected readonly have = computed(() => whatPagesHave(this.report()));
  protected readonly say = sentences;
  protected readonly on = onSlides;
}
