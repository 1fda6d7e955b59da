export const ROOT: string;
export const DATA: string;
export function isListening(port: number): Promise<boolean>;
export function mustOwn(folder: string): void;
export function isRunning(pid: number): boolean;
export function hasEnded(pid: number, milliseconds: number): Promise<boolean>;
