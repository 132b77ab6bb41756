/** What is carried from the materials beside a board to a page: an asset, as JSON. */
export const CARRIED_ASSET = 'application/x-cuaderno-asset';
