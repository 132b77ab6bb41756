/** Number of this protocol. A browser with another one is asked to reload. */
export const PROTOCOL = 15;
