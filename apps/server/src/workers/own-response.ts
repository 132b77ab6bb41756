/*
 * pdf.js looks at the global `Response` as it loads. Node makes that only when it is asked for, with
 * an HTTP parser that V8 compiles from WebAssembly in the background; a thread that ends meanwhile
 * brings the whole process down (a segmentation fault in AsyncCompileJob, Node 20). Nothing in these
 * threads speaks HTTP, so they get a `Response` that is only what pdf.js could ask of it.
 */
class StreamBytes {
  constructor(private readonly stream: ReadableStream<Uint8Array>) {}

  async bytes(): Promise<Uint8Array> {
    const chunks: Uint8Array[] = [];
    for await (const chunk of this.stream) chunks.push(chunk);
    return new Uint8Array(Buffer.concat(chunks));
  }
}

Object.defineProperty(globalThis, 'Response', { value: StreamBytes });
