export const PORT: number;
export function runningServer(): { pid: number; port: number } | null;
export function run(): Promise<number>;
