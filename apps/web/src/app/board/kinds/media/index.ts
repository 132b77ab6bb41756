import { PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';

export const media: WebKind<'media'> = PLAIN_KIND;
