import { ComponentHarness } from '@angular/cdk/testing';
import type { Point } from '@cuaderno/core/geometry';

/** What somebody does on the stage with a mouse, where no pen is named; places are in CSS px from its corner. */
export class StageHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-stage';
  private readonly glass = this.locatorFor('.host');

  /** Presses at the first place, moves through the others and lets go at the last. */
  async drag(...through: readonly Point[]): Promise<void> {
    await this.dragWith('mouse', through);
  }

  /** The same with a pen, which is in use from then on. */
  async dragPen(...through: readonly Point[]): Promise<void> {
    await this.dragWith('pen', through);
  }

  /** Moves over it without touching. */
  async hover(at: Point): Promise<void> {
    await this.send('pointermove', at);
  }

  async doubleClick(at: Point): Promise<void> {
    await this.send('dblclick', at);
  }

  private async dragWith(device: 'mouse' | 'pen', through: readonly Point[]): Promise<void> {
    await this.send('pointerdown', through[0]!, device);
    for (const at of through.slice(1)) await this.send('pointermove', at, device);
    await this.send('pointerup', through.at(-1)!, device);
  }

  private async send(type: string, { x, y }: Point, pointerType = 'mouse'): Promise<void> {
    const glass = await this.glass();
    const { left, top } = await glass.getDimensions();
    await glass.dispatchEvent(type, {
      pointerType,
      pointerId: 1,
      button: type === 'pointermove' ? -1 : 0,
      clientX: left + x,
      clientY: top + y,
      pressure: 0.5,
    });
  }
}
