import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import type { TextSpec } from '@cuaderno/core/kinds';
import type { ItemTraits } from '@cuaderno/core/ops';
import type { TextFont } from '@cuaderno/core/text';
import { TextAlignCenter, TextAlignEnd, TextAlignStart } from 'lucide';
import type { IconNode } from 'lucide';
import { Icon } from '../../../ui/icons/icon';
import { Popup } from '../../../ui/popup/popup';
import { TEXT_MARKS } from '../../../ui/rich-text/text-marks';
import { Tip } from '../../../ui/tip/tip';
import { families } from '../../drawing/text-fonts';
import { KindOptions } from '../kind';
import { laidOut } from './laid-out';
import { SLIPS, TEXT_SIZES, textStyle } from './style';
import type { TextStyle } from './style';

const ALIGNS: readonly { align: TextSpec['align']; label: string; icon: IconNode }[] = [
  { align: 'start', label: 'From the start', icon: TextAlignStart },
  { align: 'middle', label: 'In the middle', icon: TextAlignCenter },
  { align: 'end', label: 'To the end', icon: TextAlignEnd },
];

const FONTS: readonly { font: TextFont; label: string }[] = [
  { font: 'plain', label: 'For reading' },
  { font: 'title', label: 'For titles' },
  { font: 'dyslexic', label: 'For readers who mix up letters' },
];

/** How words look: those that are being written, those that are chosen, or the next. */
@Component({
  selector: 'cua-text-options',
  imports: [Icon, Popup, Tip],
  templateUrl: './options.html',
  styleUrl: './options.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextOptions extends KindOptions<TextSpec> {
  protected readonly marks = TEXT_MARKS;
  protected readonly aligns = ALIGNS;
  protected readonly fonts = FONTS;
  protected readonly families = families;
  protected readonly sizes = TEXT_SIZES;
  protected readonly slips = SLIPS;
  protected readonly style = computed(() => {
    const text = this.written()?.text ?? this.items()[0];
    if (text) return text;
    const next = textStyle.value();
    return this.tool() === 'slip' ? next : { ...next, slip: null };
  });

  protected set(to: Partial<Omit<TextStyle, 'ink'>>): void {
    const written = this.written();
    if (written) written.restyle(to);
    else if (this.items().length > 0) this.change()((text) => restyled(text, to));
    else textStyle.set(to);
  }
}

/** What changes about a text that looks otherwise: its lines are broken anew. What is no slip doesn't become one. */
function restyled(text: TextSpec, { slip, ...to }: Partial<Omit<TextStyle, 'ink'>>): ItemTraits {
  const otherwise = { ...text, ...to, ...(slip && text.slip ? { slip } : {}) };
  const { frame, font, size, align, slip: colour, lines } = laidOut(otherwise);
  return { frame, font, size, align, slip: colour, lines };
}
