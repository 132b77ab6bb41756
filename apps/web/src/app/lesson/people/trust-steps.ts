import type { Trust } from '@cuaderno/core/permissions';
import { Eye, Grab, Pen } from 'lucide';

/** The steps of trust, as they are called and shown wherever pens are given. */
export const TRUST_STEPS: readonly {
  readonly trust: Trust;
  readonly label: string;
  readonly icon: typeof Eye;
  /** What it means, for anyone who asks. */
  readonly means: string;
}[] = [
  { trust: 'view', label: 'Watching', icon: Eye, means: 'sees everything, writes nothing' },
  { trust: 'write', label: 'Writing', icon: Pen, means: 'writes on the page with all tools' },
  {
    trust: 'hands',
    label: 'Hands on',
    icon: Grab,
    means: 'also moves and changes what lies loose on the page',
  },
];
