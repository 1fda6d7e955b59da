export function fingerprint(folders: readonly string[]): string;
export function buildServer(): void;
export function buildKernelsAndKit(): void;
export function buildPlayer(): void;
export function build(): void;
