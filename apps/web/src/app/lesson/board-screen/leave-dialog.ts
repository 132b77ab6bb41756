import { ChangeDetectionStrategy, Component, input, output, viewChild } from '@angular/core';
import { LessonNotes } from '../../records/notes/lesson-notes';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';

/** Closing the lesson and stepping out of it are two acts: each says what will happen. */
@Component({
  selector: 'cua-leave-dialog',
  imports: [Button, DIALOG, LessonNotes],
  template: `
    <cua-dialog header="Close this lesson?" (closed)="stayed.emit()">
      <ul>
        <li class="notes">
          <cua-lesson-notes [lesson]="lesson()" [writes]="true" />
        </li>
        <li>
          <div>
            <strong>Close the lesson</strong>
            <p>
              Everyone leaves, and the join link lets nobody in until you open the next lesson. What
              is on the board becomes a record; the board itself stays.
            </p>
          </div>
          <button type="button" cuaButton="strong" [disabled]="busy()" (click)="close()">
            Close the lesson
          </button>
        </li>
        <li>
          <div>
            <strong>Only step out</strong>
            <p>
              The lesson stays open and everyone stays in it. Anyone who comes waits at the door
              until you are back. If you stay away for long, it closes by itself.
            </p>
          </div>
          <button type="button" cuaButton (click)="stepOut()">Step out</button>
        </li>
      </ul>
      <div class="buttons">
        <button type="button" cuaButton="quiet" (click)="stayed.emit()">Go on teaching</button>
      </div>
    </cua-dialog>
  `,
  styles: `
    @use '../../ui/theme/breakpoints';

    ul {
      display: grid;
      gap: var(--space-8);
      max-width: 34rem;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: var(--space-9);
    }
    p {
      margin: var(--space-1) 0 0;
      color: var(--ink-soft);
    }
    .cua-button {
      flex: none;
    }
    .notes {
      display: block;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      margin-top: var(--space-6);
    }
    @media (max-width: breakpoints.$large-phone) {
      li {
        display: grid;
        gap: var(--space-3);
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeaveDialog {
  readonly lesson = input.required<string>();
  readonly busy = input(false);
  readonly stayed = output();
  readonly steppedOut = output();
  readonly closedLesson = output();
  private readonly notes = viewChild.required(LessonNotes);

  /** What was written of the lesson is kept first; where that can't be, nothing is closed. */
  protected async close(): Promise<void> {
    if (await this.notes().saveAll()) this.closedLesson.emit();
  }

  /** What can't be kept now is there when the sheet is opened again. */
  protected async stepOut(): Promise<void> {
    await this.notes().saveAll();
    this.steppedOut.emit();
  }
}
