import { newestOf } from '@cuaderno/core/notes';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { RecordsApi } from '../../api/records-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Note, NoteKind } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { formatClock, formatDate } from '../../ui/time/format-time';
import { NoteDrafts } from './note-drafts';
import type { Drafts, NoteDraft } from './note-drafts';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** What can be written of a lesson. */
const KINDS: readonly { readonly kind: NoteKind; readonly label: string; readonly none: string }[] =
  [
    { kind: 'summary', label: 'Summary', none: 'What did you do in this lesson?' },
    { kind: 'until', label: 'Until next time', none: 'What is to be done until the next one?' },
  ];

/**
 * What the tutor writes of a lesson. It is amended in sight: every version stays and can be read, and what was
 * amended in another window meanwhile is shown before anything is written over it.
 */
@Component({
  selector: 'cua-lesson-notes',
  imports: [Button, ProblemMessage],
  templateUrl: './lesson-notes.html',
  styleUrl: './lesson-notes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonNotes {
  readonly lesson = input.required<string>();
  /** Whether both are being written from the start, and kept all at once with `saveAll`. */
  readonly writes = input(false);

  private readonly recordsApi = inject(RecordsApi);
  private readonly kept = inject(NoteDrafts);
  private readonly versions = signal<readonly Note[] | null>(null);
  private readonly drafts = signal<Drafts>({});
  /** What was amended elsewhere while it was written here. */
  private readonly overtaken = signal<ReadonlySet<NoteKind>>(new Set());
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly busy = signal(false);
  protected readonly notes = computed(() => {
    const versions = this.versions();
    return versions === null
      ? []
      : KINDS.map((one) => {
          const own = versions.filter(({ kind }) => kind === one.kind);
          const newest = newestOf(own);
          return {
            ...one,
            newest,
            former: own.filter((note) => note !== newest).reverse(),
            draft: this.drafts()[one.kind] ?? null,
            overtaken: this.overtaken().has(one.kind),
          };
        });
  });
  protected readonly when = (at: number): string => `${formatDate(at)}, ${formatClock(at)}`;

  constructor() {
    effect(() => {
      this.lesson();
      untracked(() => void this.load());
    });
  }

  /** Keeps all that is being written. @returns whether all of it is kept */
  async saveAll(): Promise<boolean> {
    for (const { kind } of KINDS) if (!(await this.save(kind))) return false;
    return true;
  }

  protected begin(kind: NoteKind): void {
    const newest = this.notes().find((note) => note.kind === kind)?.newest ?? null;
    this.put(kind, { text: newest?.text ?? '', follows: newest?.id ?? null });
  }

  protected type(kind: NoteKind, text: string): void {
    const draft = this.drafts()[kind];
    if (draft) this.put(kind, { ...draft, text });
  }

  protected leave(kind: NoteKind): void {
    this.put(kind, null);
    this.problem.set(null);
  }

  /** @returns whether nothing is left to be kept */
  protected async save(kind: NoteKind): Promise<boolean> {
    const draft = this.drafts()[kind];
    if (!draft) return true;
    const former = this.notes().find((note) => note.kind === kind)?.newest ?? null;
    if (draft.text.trim() === (former?.text ?? '')) {
      if (!this.writes()) this.leave(kind);
      return true;
    }
    this.busy.set(true);
    this.problem.set(null);
    try {
      const note = await firstValueFrom(
        this.recordsApi.keepNote(this.lesson(), { kind, ...draft }),
      );
      this.versions.update((list) => [...(list ?? []), note]);
      this.put(kind, this.writes() ? { text: note.text, follows: note.id } : null);
      return true;
    } catch (error) {
      this.problem.set(problemOf(error));
      if (error instanceof ApiError && error.code === 'note-amended') await this.catchUp(kind);
      return false;
    } finally {
      this.busy.set(false);
    }
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    try {
      this.drafts.set(this.kept.of(this.lesson()));
      // Anyone who writes can do so at once: what there is of it comes under what they have written by then.
      this.versions.set(this.writes() ? [] : null);
      if (this.writes()) this.beginAll();
      await this.fetch();
      if (this.writes()) this.takeUp();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  private beginAll(): void {
    for (const { kind } of KINDS) if (!this.drafts()[kind]) this.begin(kind);
  }

  /** What was kept of the lesson has come: it stands in fields where nothing was written yet, else beside them. */
  private takeUp(): void {
    for (const { kind, newest, draft } of this.notes()) {
      if (!newest || draft?.follows === newest.id) continue;
      if (!draft || draft.text === '') this.begin(kind);
      else {
        this.put(kind, { ...draft, follows: newest.id });
        if (draft.text.trim() !== newest.text)
          this.overtaken.update((set) => new Set(set).add(kind));
      }
    }
  }

  /** What was written here stays; it amends what is there now, which is shown beside it. */
  private async catchUp(kind: NoteKind): Promise<void> {
    try {
      await this.fetch();
    } catch (error) {
      this.problem.set(problemOf(error));
      return;
    }
    const newest = this.notes().find((note) => note.kind === kind)?.newest ?? null;
    this.drafts.update((all) => ({
      ...all,
      [kind]: { text: all[kind]?.text ?? '', follows: newest?.id ?? null },
    }));
    this.remember();
    this.overtaken.update((set) => new Set(set).add(kind));
  }

  private async fetch(): Promise<void> {
    const { notes } = await firstValueFrom(this.recordsApi.listNotes(this.lesson()));
    this.versions.set(notes);
  }

  /** What says nothing but what is kept already needn't be remembered. */
  private remember(): void {
    const unkept = this.notes().flatMap(({ kind, draft, newest }) =>
      draft && draft.text.trim() !== (newest?.text ?? '') ? [[kind, draft] as const] : [],
    );
    this.kept.keep(this.lesson(), Object.fromEntries(unkept));
  }

  private put(kind: NoteKind, draft: NoteDraft | null): void {
    this.drafts.update((all) => {
      const drafts = { ...all };
      if (draft) drafts[kind] = draft;
      else delete drafts[kind];
      return drafts;
    });
    this.remember();
    if (draft === null)
      this.overtaken.update((set) => new Set([...set].filter((one) => one !== kind)));
  }
}
