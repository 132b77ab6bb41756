/** Thrown where the server can't begin; its message is a sentence for the one who started it, and says what to do. */
export class StartError extends Error {
  override readonly name = 'StartError';
}
