import { PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';

export const cover: WebKind<'cover'> = PLAIN_KIND;
