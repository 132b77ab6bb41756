import { ChangeDetectionStrategy, Component, input, resource } from '@angular/core';
import { pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { FileHash } from '@cuaderno/core/id';

/** Where it is known whether a PDF is protected. */
export interface ProtectedFiles {
  isProtected(file: FileHash): Promise<boolean>;
}

/** Says that pages come from a PDF whose maker has forbidden things, which a copy of it no longer does. */
@Component({
  selector: 'cua-protected-note',
  template: `
    @if (found.hasValue() && found.value()) {
      <p role="status">
        Some of these pages come from a PDF that is protected against being changed, copied or
        printed. What you save here is not: save it only if you may.
      </p>
    }
  `,
  styles: `
    p {
      max-width: 32rem;
      margin: var(--space-4) 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtectedNote {
  readonly board = input.required<Board>();
  readonly papers = input.required<ProtectedFiles>();
  protected readonly found = resource({
    params: () => ({ board: this.board(), papers: this.papers() }),
    loader: async ({ params: { board, papers } }) => {
      const files = new Set(
        pagesInOrder(board).flatMap(({ paper }) => (paper.kind === 'pdf' ? [paper.file] : [])),
      );
      // One after the other: each has to be opened, and the first that is protected is enough.
      for (const file of files) if (await papers.isProtected(file)) return true;
      return false;
    },
  });
}
