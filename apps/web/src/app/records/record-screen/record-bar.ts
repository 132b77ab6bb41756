import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  model,
  output,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { Id } from '@cuaderno/core/id';
import { Printer } from 'lucide';
import type { MenuItem } from 'primeng/api';
import { MenuModule } from 'primeng/menu';
import type { CopySource } from '../../board/copying/copy-dialog';
import { WhoseInk } from '../../board/whose-ink/whose-ink';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { OpenRecord } from './open-record';
import { RECORD_VIEWS } from './record-view';
import type { RecordView } from './record-view';

/** The bar above a record: which side of the lesson is shown, whose ink, and what can be made of it. */
@Component({
  selector: 'cua-record-bar',
  host: { role: 'banner' },
  imports: [Button, Icon, MenuModule, RouterLink, Tip, WhoseInk],
  templateUrl: './record-bar.html',
  styleUrl: './record-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordBar {
  /** What is shown, or was asked for and is on its way. */
  readonly view = input.required<RecordView>();
  readonly signed = model.required<boolean>();
  /** The one person whose ink is shown; `null` for everyone's. */
  readonly only = model.required<Id | null>();
  readonly chosen = output<RecordView>();
  /** It is to be copied to a board. */
  readonly copied = output<CopySource>();
  readonly printed = output();
  readonly shared = output();
  readonly saved = output();
  protected readonly record = inject(OpenRecord);
  private readonly router = inject(Router);
  protected readonly views = RECORD_VIEWS;
  protected readonly icons = { Printer };

  protected readonly waysOn = computed<MenuItem[]>(() => {
    const [info, boards] = [this.record.info(), this.record.opened()?.boards ?? []];
    if (!info) return [];
    const copy = (header: string, title: string, lessonInk: boolean) => () =>
      this.copied.emit({
        ...{ of: { record: info.lesson }, course: info.course },
        ...{ header, title, lessonInk },
      });
    const onBoards = boards.flatMap(({ board, goesOn }) => {
      if (!goesOn) return [];
      const one = goesOn.same ? 'On the same board' : 'On the board as it is now';
      const label = boards.length === 1 ? one : `On “${goesOn.title}”`;
      return [{ label, command: () => void this.router.navigate(['/boards', board]) }];
    });
    return [
      ...onBoards,
      {
        label: 'On a new board, as the lesson left it…',
        command: copy('A new board from this record', info.title, true),
      },
      {
        label: 'With a clean copy…',
        command: copy('A clean copy of this record', `${info.title}, clean`, false),
      },
    ];
  });
}
