import type { HandOverShape, Receiver } from '@cuaderno/contract/handing-over';

export type {
  HandedFile,
  HandOverShape as HandOver,
  Receiver,
} from '@cuaderno/contract/handing-over';

export interface HandOverList {
  readonly students: readonly Receiver[];
  readonly handOvers: readonly HandOverShape[];
}
