import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  Injector,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { ElementRef } from '@angular/core';
import { Pencil } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';

/** What a board is called, and how it is called something else. */
@Component({
  selector: 'cua-board-name',
  imports: [Button, Icon, Tip],
  template: `
    @if (naming()) {
      <input
        #field
        class="naming"
        aria-label="Name of the board"
        maxlength="120"
        [value]="name()"
        (keydown.enter)="rename(field.value)"
        (keydown.escape)="stop()"
        (blur)="rename(field.value)"
      />
    } @else {
      <button
        #button
        type="button"
        cuaButton="quiet"
        class="name"
        cuaTip="Rename the board"
        [disabled]="!mayRename()"
        (click)="naming.set(true)"
      >
        <bdi class="title">{{ name() }}</bdi>
        <cua-icon [of]="icons.Pencil" [size]="16" />
      </button>
    }
  `,
  styleUrl: './board-name.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardName {
  readonly name = input.required<string>();
  readonly mayRename = input.required<boolean>();
  /** Another name than it has, without spaces around it. */
  readonly renamed = output<string>();
  private readonly injector = inject(Injector);
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');
  private readonly button = viewChild<ElementRef<HTMLButtonElement>>('button');
  protected readonly icons = { Pencil };
  protected readonly naming = signal(false);

  constructor() {
    effect(() => {
      const field = this.field()?.nativeElement;
      // Selected first: what was typed ahead comes with the focus, in place of the name.
      field?.setSelectionRange(0, field.value.length);
      field?.focus();
    });
  }

  protected rename(name: string): void {
    // Leaving the field after Enter says it twice.
    if (!this.naming()) return;
    this.stop();
    const tidy = name.trim();
    if (tidy !== '' && tidy !== this.name()) this.renamed.emit(tidy);
  }

  /** The one who named it goes on from its name. */
  protected stop(): void {
    const hadFocus = document.activeElement === this.field()?.nativeElement;
    this.naming.set(false);
    if (!hadFocus) return;
    // Unless something else has been opened by then, and has it.
    const focus = (): void => {
      if (document.activeElement === document.body) this.button()?.nativeElement.focus();
    };
    afterNextRender(focus, { injector: this.injector });
  }
}
