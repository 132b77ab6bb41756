import { PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';

export const picture: WebKind<'picture'> = PLAIN_KIND;
