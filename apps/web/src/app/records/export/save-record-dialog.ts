import type { BoardWriter } from '@cuaderno/contract/board-writer';
import type { Asked } from '@cuaderno/contract/route';
import type { downloadRecordPdf } from '@cuaderno/contract/routes/records';
import { SAID_SOURCES } from '@cuaderno/core/features';
import type { Board, Page } from '@cuaderno/core/board';
import type { SaidSource } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { BoardFileWish } from '@cuaderno/formats/board-file';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { CheckboxModule } from 'primeng/checkbox';
import { FormsModule } from '@angular/forms';
import { lastValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { untilAborted } from '../../api/api';
import { RecordsApi } from '../../api/records-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { Button } from '../../ui/button/button';
import { makeFilm } from '../film/film';
import { lengthOfFilm } from '../film/film-source';
import type { FilmSource } from '../film/film-source';
import { SAID } from '../../live/features/in-record';
import type { Writer } from '../../board/whose-ink/whose-ink';
import { DIALOG } from '../../ui/popup/dialog';
import type { PaperSource } from '../../board/drawing/paper-source';
import { formatShort } from '../../ui/time/format-time';
import { inShownZone } from '../../ui/time/shown-zone';
import { boardAsFile } from './board-file';
import { FileWish } from './file-wish';
import { languages, ownLanguage } from './languages';
import { Making } from './making';
import { pagePng } from '../../board/page-files/page-image';
import { pageInkMl } from '../../board/page-files/page-inkml';
import { pageAsSvg } from '../../board/page-files/page-svg';
import { ProtectedNote } from './protected-note';
import { svgWords } from '../../board/page-files/svg-words';
import { ProblemMessage } from '../../ui/problem/problem-message';

type RecordForm = 'pdf' | 'file' | 'png' | 'svg' | 'inkml' | 'film' | SaidSource;
type InkForm = 'drawn' | 'annotations' | 'none';

const FORMS: readonly { form: RecordForm; label: string; words: string }[] = [
  {
    form: 'pdf',
    label: 'PDF',
    words: 'Every page as the lesson left it.',
  },
  {
    form: 'file',
    label: 'Board file',
    words: 'All pages in one file, which opens as a board.',
  },
  { form: 'png', label: 'This page as PNG', words: 'A sharp picture of it.' },
  { form: 'svg', label: 'This page as SVG', words: '' },
  {
    form: 'inkml',
    label: 'Its ink as InkML',
    words: 'This page’s lines, with pressure and time.',
  },
  {
    form: 'film',
    label: 'Film as WebM',
    words: 'The lesson as it grew, without sound.',
  },
  ...SAID_SOURCES.map((form) => ({ form, ...SAID[form].file })),
];

const INK_FORMS: readonly { ink: InkForm; label: string; words: string }[] = [
  { ink: 'drawn', label: 'Drawn into the pages', words: 'Looks alike everywhere.' },
  {
    ink: 'annotations',
    label: 'As annotations',
    words:
      'Other PDF programs list it by author and time and can change it; here it opens as ink again.',
  },
  { ink: 'none', label: 'Left out', words: 'The bare sheets.' },
];

const APPENDIX: readonly { name: 'notes' | 'attendance' | SaidSource; label: string }[] = [
  { name: 'notes', label: 'Notes' },
  ...SAID_SOURCES.map((name) => ({ name, label: SAID[name].label })),
  { name: 'attendance', label: 'Who was there' },
];

/** How many times as fast as it was. */
const FILM_SPEEDS = [1, 2, 4, 8, 16] as const;

/** Asks as what a record, or a page of it, is to be saved on this machine. */
@Component({
  selector: 'cua-save-record-dialog',
  imports: [
    Button,
    CheckboxModule,
    DIALOG,
    FileWish,
    FormsModule,
    NgTemplateOutlet,
    ProblemMessage,
    ProtectedNote,
    LIST,
  ],
  templateUrl: './save-record-dialog.html',
  styleUrl: './save-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SaveRecordDialog {
  readonly lesson = input.required<string>();
  /** What the files of single pages are called. */
  readonly title = input.required<string>();
  /** As the lesson left it. */
  readonly board = input.required<Board | null>();
  readonly page = input<Page | null>(null);
  /** Of the page, from 1. */
  readonly number = input.required<number>();
  readonly papers = input.required<PaperSource>();
  /** Where something was said in the lesson. */
  readonly said = input.required<readonly SaidSource[]>();
  readonly writers = input.required<readonly (Writer & BoardWriter)[]>();
  /** Fetches what a film is made of. Throws `ApiError`. */
  readonly film = input.required<() => Promise<FilmSource>>();
  readonly closed = output();
  private readonly recordsApi = inject(RecordsApi);

  /** Of what was said only what something was said in. */
  protected readonly forms = computed(() => FORMS.filter(({ form }) => this.isThere(form)));
  protected readonly svgWords = computed(() => svgWords(this.page()));
  protected readonly inkForms = INK_FORMS;
  protected readonly appendix = computed(() => APPENDIX.filter(({ name }) => this.isThere(name)));
  protected readonly languages = languages();
  protected readonly form = signal<RecordForm>('pdf');
  protected readonly ink = signal<InkForm>('drawn');
  protected readonly signed = signal(false);
  protected readonly only = signal<Id | null>(null);
  protected readonly extra = signal<ReadonlySet<string>>(new Set(['notes']));
  protected readonly language = signal(ownLanguage());
  protected readonly speedLabels = FILM_SPEEDS.map((speed) => ({
    speed,
    label: speed === 1 ? 'as it was' : `${speed} times`,
  }));
  protected readonly speed = signal<number>(4);
  protected readonly skipsIdle = signal(true);
  protected readonly named = signal(true);
  protected readonly fileNamed = signal(false);
  protected readonly fileInk = signal<BoardFileWish['ink']>('all');
  private readonly filmSource = signal<FilmSource | null>(null);
  /** Why it isn't there. */
  protected readonly filmProblem = signal<ProblemDetails | null>(null);
  /** How long the film will be, in words; empty until that is known. */
  protected readonly filmLength = computed(() => {
    const source = this.filmSource();
    const wish = { speed: this.speed(), skipsIdle: this.skipsIdle() };
    return source ? formatShort(lengthOfFilm(source, wish)) : '';
  });
  /** Whether it could be made now. */
  protected readonly canSave = computed(() => this.form() !== 'film' || this.filmSource() !== null);
  protected readonly making = new Making();
  protected readonly whose = computed(() => [
    { id: null, label: 'Everyone’s' },
    ...this.writers().map(({ id, label }) => ({ id, label: `${label} alone` })),
  ]);

  /** Another form is wanted; what a film is made of is fetched when somebody wants one. */
  protected async choose(form: RecordForm): Promise<void> {
    this.form.set(form);
    if (form === 'film' && !this.filmSource()) await this.fetchFilm();
  }

  protected async fetchFilm(): Promise<void> {
    this.filmProblem.set(null);
    try {
      this.filmSource.set(await this.film()());
    } catch (error) {
      this.filmProblem.set(problemOf(error));
    }
  }

  protected isOfPage(form: RecordForm): boolean {
    return form === 'png' || form === 'svg' || form === 'inkml';
  }

  protected wish(name: string, yes: boolean): void {
    const extra = new Set(this.extra());
    if (yes) extra.add(name);
    else extra.delete(name);
    this.extra.set(extra);
  }

  protected async save(): Promise<void> {
    if (await this.making.save((signal) => this.made(signal))) this.closed.emit();
  }

  protected close(): void {
    this.making.stop();
    this.closed.emit();
  }

  private isThere(name: string): boolean {
    return !(name in SAID) || (this.said() as readonly string[]).includes(name);
  }

  private async made(signal: AbortSignal): Promise<{ blob: Blob; name: string }> {
    const [papers, page] = [this.papers(), this.page()];
    const ofPage = `${this.title()}, page ${this.number()}`;
    const params = { lesson: this.lesson() };
    const form = this.form();
    switch (form) {
      case 'pdf':
        return lastValueFrom(
          this.recordsApi.downloadRecordPdf(params.lesson, this.query()).pipe(untilAborted(signal)),
        );
      case 'file': {
        const people = this.fileNamed() ? this.writers().map(writerOf) : null;
        const blob = await boardAsFile(
          ...([this.board()!, papers, { ink: this.fileInk(), people }, signal] as const),
          (part) => this.making.part.set(part),
        );
        return { blob, name: `${this.title()}.cuaderno.zip` };
      }
      case 'film':
        return { blob: await this.filmed(papers, signal), name: `${this.title()}, film.webm` };
      case 'inkml':
        return { blob: await pageInkMl(page!, this.called()), name: `${ofPage}.inkml` };
      case 'png':
        return { blob: await pagePng(page!, papers, { ink: true, signal }), name: `${ofPage}.png` };
      case 'svg': {
        const svg = await pageAsSvg(page!, papers, { ink: true, signal });
        return { blob: new Blob([svg], { type: 'image/svg+xml' }), name: `${ofPage}.svg` };
      }
      default:
        return lastValueFrom(
          this.recordsApi
            .downloadSaid(params.lesson, SAID[form].file.name, inShownZone())
            .pipe(untilAborted(signal)),
        );
    }
  }

  private async filmed(papers: PaperSource, signal: AbortSignal): Promise<Blob> {
    const source = this.filmSource()!;
    const { log, whole, beside, turns, people } = source;
    const { blob } = await makeFilm(
      {
        ...{ log, whole, beside, turns, people: this.named() ? people : [] },
        ...{ speed: this.speed(), skipsIdle: this.skipsIdle(), only: this.only() },
      },
      papers,
      (part) => this.making.part.set(part),
      signal,
    );
    return blob;
  }

  /** What those who wrote are called. */
  private called(): (id: string) => string | null {
    const names = new Map(this.writers().map(({ id, label }) => [id, label] as const));
    return (id) => names.get(id) ?? null;
  }

  private query(): Asked<typeof downloadRecordPdf>['query'] {
    const [only, ink] = [this.only(), this.ink()];
    return {
      ...{ ...inShownZone(), ink, language: this.language() },
      ...(ink !== 'none' && this.signed() && { signed: 'true' }),
      ...(ink !== 'none' && only && { only }),
      ...(this.extra().size > 0 && { with: [...this.extra()].join(',') }),
    };
  }
}

/** Somebody who was in the lesson, as a board file names them. */
function writerOf({ id, name, nameOrdinal, role }: BoardWriter): BoardWriter {
  return { id, name, nameOrdinal, role };
}
