import { ChangeDetectionStrategy, Component, DestroyRef, inject, input } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Download } from 'lucide';
import { timer } from 'rxjs';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { formatBytes } from '../store/format-material';
import { HandedFiles } from './handed-files';

/** Files that a student was handed, to be kept on their own machine; nothing where there are none. */
@Component({
  selector: 'cua-handed-list',
  imports: [Button, Icon],
  template: `@if (handed.files().length > 0) {
    @if (heading()) {
      <h2>Files for you</h2>
    }
    <ul>
      @for (file of handed.files(); track file.id) {
        <li>
          <a cuaButton download [href]="'/api/handed/' + file.id + '/file'" (click)="fetched()">
            <cua-icon [of]="icons.Download" [size]="20" />
            <span class="words">
              <bdi class="name">{{ file.name }}</bdi>
              <span class="more">
                <bdi>{{ file.course }}</bdi> · {{ bytes(file.bytes) }}
                @if (file.fetchedAt !== null) {
                  · you have it
                }
              </span>
            </span>
          </a>
        </li>
      }
    </ul>
  }`,
  styles: `
    h2 {
      margin: var(--space-8) 0 var(--space-3);
      font-size: var(--size-l);
    }
    ul {
      display: grid;
      gap: var(--space-4);
      margin: 0;
      padding: 0;
      list-style: none;
    }
    .cua-button {
      justify-content: start;
      gap: var(--space-5);
      min-height: var(--touch);
      padding: var(--space-4) var(--space-6);
      text-align: start;
      text-decoration: none;
    }
    .words {
      min-width: 0;
    }
    .name,
    .more {
      display: block;
      overflow-wrap: anywhere;
    }
    .more {
      color: var(--ink-soft);
      font-size: var(--size-m);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HandedList {
  readonly heading = input(true);
  protected readonly handed = inject(HandedFiles);
  private readonly destroyRef = inject(DestroyRef);
  protected readonly icons = { Download };
  protected readonly bytes = formatBytes;

  constructor() {
    void this.handed.load();
  }

  /** The browser fetches it by itself; a moment later the server knows. */
  protected fetched(): void {
    timer(SOON)
      .pipe(takeUntilDestroyed(this.destroyRef))
      .subscribe(() => void this.handed.load());
  }
}

/** In ms. In a lesson the server says so itself. */
const SOON = 2000;
