import type { Answer } from '@cuaderno/contract/route';
import type { listHandOvers } from '@cuaderno/contract/routes/handing-over';

export type {
  HandedFile,
  HandOverShape as HandOver,
  Receiver,
} from '@cuaderno/contract/handing-over';

export type HandOverList = Answer<typeof listHandOvers>;
