// The few names outside the language that core may use: the same in browsers, workers and Node.
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>;
}
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(bytes: Uint8Array): string;
}
declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array);
  }
  class Memory {
    constructor(descriptor: { initial: number; maximum?: number; shared?: boolean });
    readonly buffer: ArrayBuffer | SharedArrayBuffer;
  }
  class Instance {
    constructor(module: Module, imports: Record<string, Record<string, unknown>>);
    readonly exports: Record<string, unknown>;
  }
}
declare class CompressionStream {
  constructor(format: 'deflate');
  readonly writable: {
    getWriter(): { write(bytes: Uint8Array<ArrayBuffer>): Promise<void>; close(): Promise<void> };
  };
  readonly readable: {
    getReader(): { read(): Promise<{ done: boolean; value?: Uint8Array<ArrayBuffer> }> };
  };
}
