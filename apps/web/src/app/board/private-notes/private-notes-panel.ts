import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { OnInit } from '@angular/core';
import type { Page } from '@cuaderno/core/board';
import type { RichText } from '@cuaderno/core/text';
import { EyeOff } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { TextEditor } from '../../ui/rich-text/text-editor';

/** The margin of the page in view: what its tutor notes beside it, for nobody else. */
@Component({
  selector: 'cua-private-notes-panel',
  imports: [Icon, TextEditor],
  template: `
    <h2>Private notes on page {{ number() }}</h2>
    <p class="private"><cua-icon [of]="icons.EyeOff" [size]="16" /> No student is sent this.</p>
    @for (one of [page()]; track one.id) {
      <cua-text-editor
        [text]="text()"
        [label]="'Private notes on page ' + number()"
        [takesFocus]="takesFocus() && one.id === first"
        placeholder="What to ask, what to listen for, the answers…"
        (changed)="changed.emit({ page: one.id, privateNotes: $event })"
      />
    }
  `,
  styleUrl: './private-notes-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PrivateNotesPanel implements OnInit {
  readonly page = input.required<Page>();
  readonly number = input.required<string>();
  /** Whether it was opened just now, and not left open: then one goes on in it. */
  readonly takesFocus = input(false);
  readonly changed = output<{ readonly page: string; readonly privateNotes: RichText }>();
  protected readonly icons = { EyeOff };
  /** The page that it was opened beside. */
  protected first = '';
  protected readonly text = computed(() => this.page().privateNotes ?? []);

  ngOnInit(): void {
    this.first = this.page().id;
  }
}
