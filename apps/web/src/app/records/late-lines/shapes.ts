export type {
  LateAnswer,
  LateLinesShape as LateLines,
  OwnLateLines,
} from '@cuaderno/contract/late-lines';

/** Where late lines go. */
export type LateWay = 'page' | 'record' | 'nowhere';
