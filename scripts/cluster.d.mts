export function startCluster(name: string, port: number): Promise<string>;
export function stopCluster(name: string): boolean;
export function killCluster(name: string): Promise<void>;
export function dropCluster(name: string): void;
export function databaseUrl(name: string, port: number, database: string): string;
