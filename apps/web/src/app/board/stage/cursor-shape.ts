import type { Tool } from '../tool/tool';
import { ERASER } from './writing';

/** How the pointer looks over the stage: a pen's cross, an arrow to choose by, the eraser's ring. */
export class CursorShape {
  private erasing = false;

  constructor(
    private readonly element: HTMLElement,
    private readonly ring: HTMLElement,
  ) {
    element.addEventListener('pointermove', (event) => this.follow(event));
    element.addEventListener('pointerleave', () => ring.classList.remove('on'));
  }

  /** @param writes whether this person holds a pen */
  show(tool: Tool, writes: boolean): void {
    const shows = tool === 'pointer' || tool === 'lamp';
    const working = (writes || shows) && tool !== 'hand';
    this.erasing = working && tool === 'eraser';
    const { classList } = this.element;
    classList.toggle('writing', working && tool !== 'select' && tool !== 'pointer');
    classList.toggle('pointing', tool === 'pointer');
    classList.toggle('choosing', working && tool === 'select');
    classList.toggle('erasing', this.erasing);
    if (!this.erasing) this.ring.classList.remove('on');
  }

  private follow(event: PointerEvent): void {
    if (!this.erasing || event.pointerType === 'touch') return;
    const corner = this.element.getBoundingClientRect();
    const [x, y] = [event.clientX - corner.x - ERASER, event.clientY - corner.y - ERASER];
    this.ring.classList.add('on');
    this.ring.style.transform = `translate(${x}px, ${y}px)`;
  }
}
