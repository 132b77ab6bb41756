import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, input, viewChild } from '@angular/core';

/** Space between a popup and what it belongs to, and the window's edge, in CSS px. */
const GAP = 6;

/**
 * A small panel beside what was pressed, closed by a touch elsewhere or Escape: the browser’s own popover,
 * so that students need no component library for it.
 */
@Component({
  selector: 'cua-popup',
  template: `
    <div #panel class="panel" popover="auto" role="dialog" [attr.aria-label]="label()">
      <ng-content />
    </div>
  `,
  styles: `
    .panel {
      position: fixed;
      inset: auto;
      max-width: calc(100vw - 12px);
      margin: 0;
      padding: var(--space-6);
      border: 1px solid var(--line);
      border-radius: 14px;
      background: var(--raised);
      color: var(--ink);
      box-shadow: 0 6px 24px rgb(40 30 10 / 22%);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Popup {
  readonly label = input.required<string>();
  private readonly panel = viewChild.required<ElementRef<HTMLElement>>('panel');

  /** Opens beside what was pressed, or closes. */
  toggle(event: Event): void {
    const panel = this.panel().nativeElement;
    const anchor = (event.currentTarget as Element).getBoundingClientRect();
    if (panel.matches(':popover-open')) return this.hide();
    panel.showPopover();
    const { width, height } = panel.getBoundingClientRect();
    const above = anchor.top - GAP - height;
    const top = above >= GAP ? above : Math.min(anchor.bottom + GAP, innerHeight - height - GAP);
    const left = Math.max(GAP, Math.min(anchor.left, innerWidth - width - GAP));
    panel.style.top = `${Math.max(GAP, top)}px`;
    panel.style.left = `${left}px`;
  }

  hide(): void {
    const panel = this.panel().nativeElement;
    if (panel.matches(':popover-open')) panel.hidePopover();
  }
}
