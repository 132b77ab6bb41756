import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import type { ShapeSpec } from '@cuaderno/core/kinds';
import type { ItemTraits } from '@cuaderno/core/ops';
import {
  Circle,
  MoveDiagonal,
  MoveUpRight,
  PaintBucket,
  Pentagon,
  Slash,
  Square,
  SquareDashed,
  Triangle,
} from 'lucide';
import type { IconNode } from 'lucide';
import { Icon } from '../../../ui/icons/icon';
import { Tip } from '../../../ui/tip/tip';
import { KindOptions } from '../kind';
import { fillOf } from './fill';
import { shapeStyle } from './style';
import type { ShapeChoice, ShapeStyle } from './style';

const SHAPES: readonly { shape: ShapeChoice; label: string; icon: IconNode }[] = [
  { shape: 'line', label: 'Line', icon: Slash },
  { shape: 'arrow', label: 'Arrow', icon: MoveUpRight },
  { shape: 'arrows', label: 'Arrow with two heads', icon: MoveDiagonal },
  { shape: 'box', label: 'Box', icon: Square },
  { shape: 'ellipse', label: 'Ellipse', icon: Circle },
  { shape: 'triangle', label: 'Triangle', icon: Triangle },
  { shape: 'polygon', label: 'Polygon: draw round its corners', icon: Pentagon },
];

/** Which shape is drawn next, and how it and those that are chosen look. */
@Component({
  selector: 'cua-shape-options',
  imports: [Icon, Tip],
  template: `
    @if (items().length === 0) {
      <div class="group choices" role="group" aria-label="Shape">
        @for (choice of shapes; track choice.shape) {
          <button
            type="button"
            [attr.aria-label]="choice.label"
            [cuaTip]="choice.label"
            [attr.aria-pressed]="next().shape === choice.shape"
            (click)="choose(choice.shape)"
          >
            <cua-icon [of]="choice.icon" [size]="20" />
          </button>
        }
      </div>
    }
    @if (style(); as style) {
      <div class="group choices" role="group" aria-label="How shapes are drawn">
        <button
          type="button"
          aria-label="Filled"
          cuaTip="Filled"
          [attr.aria-pressed]="style.filled"
          (click)="set({ filled: !style.filled })"
        >
          <cua-icon [of]="icons.PaintBucket" [size]="20" />
        </button>
        <button
          type="button"
          aria-label="Dashed"
          cuaTip="Dashed"
          [attr.aria-pressed]="style.dashed"
          (click)="set({ dashed: !style.dashed })"
        >
          <cua-icon [of]="icons.SquareDashed" [size]="20" />
        </button>
      </div>
    }
  `,
  styleUrl: '../_options.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShapeOptions extends KindOptions<ShapeSpec> {
  protected readonly icons = { PaintBucket, SquareDashed };
  protected readonly shapes = SHAPES;
  protected readonly next = shapeStyle.value;
  /** How shapes are drawn: those that are chosen, or the next. */
  protected readonly style = computed(() => {
    const [first] = this.items();
    if (!first) return this.next();
    return first.outline && { filled: first.fill !== null, dashed: first.outline.dashed ?? false };
  });

  protected choose(shape: ShapeChoice): void {
    shapeStyle.set({ shape });
  }

  protected set(to: Partial<Pick<ShapeStyle, 'filled' | 'dashed'>>): void {
    if (this.items().length === 0) shapeStyle.set(to);
    else this.change()((shape) => drawnOtherwise(shape, to));
  }
}

/** What changes about a shape that is drawn otherwise; a line has nothing to fill. */
function drawnOtherwise(
  { outline, shape }: ShapeSpec,
  { dashed, filled }: Partial<Pick<ShapeStyle, 'filled' | 'dashed'>>,
): ItemTraits {
  if (!outline) return {};
  const { colour, width } = outline;
  const isDashed = dashed ?? outline.dashed ?? false;
  const fills = filled !== undefined && shape !== 'line';
  return {
    outline: { colour, width, ...(isDashed ? { dashed: true } : {}) },
    ...(fills ? { fill: filled ? fillOf(colour) : null } : {}),
  };
}
