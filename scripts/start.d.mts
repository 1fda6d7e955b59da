export const PORT: number;
export function runningServer(file?: string): { pid: number; port: number } | null;
export function run(): Promise<number>;
