import { inject, Injectable, signal } from '@angular/core';
import { lasting, remember } from '../../browser/storage';
import { MaterialsStore } from '../../materials/store/materials-store';

const PRIVATE_NOTES_KEY = 'cuaderno.private-notes';

/** What is open beside the page: private notes, and in the one place there is for it finding or materials. */
@Injectable()
export class BesideBoard {
  private readonly materials = inject(MaterialsStore);
  readonly side = signal<'find' | 'materials' | null>(null);
  /** Whether private notes are open. They stay as they were left, on this machine. */
  readonly privateNotes = signal(lasting.getItem(PRIVATE_NOTES_KEY) === 'open');
  /** Whether somebody opened or shut them in this window. */
  readonly notesToggled = signal(false);

  toggle(side: 'find' | 'materials'): void {
    this.side.update((open) => (open === side ? null : side));
  }

  toggleNotes(): void {
    this.notesToggled.set(true);
    this.privateNotes.update((open) => !open);
    remember(lasting, PRIVATE_NOTES_KEY, this.privateNotes() ? 'open' : 'shut');
  }

  /** What was brought to the board lies among materials, too. */
  inserted(): void {
    if (this.side() === 'materials') void this.materials.load();
  }
}
