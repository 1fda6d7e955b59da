export const DATABASE: string;
export const OWNER: string;
export const ADMIN: string;
export function startCluster(name: string, port: number): Promise<string>;
export function stopCluster(name: string): Promise<boolean>;
export function killCluster(name: string): Promise<void>;
export function dropCluster(name: string): Promise<void>;
export function databaseUrl(name: string, port: number, database: string, role?: string): string;
export function access(
  name: string,
  port: number,
  role: string,
  database: string,
): { args: string[]; env: NodeJS.ProcessEnv };
export function ask(
  name: string,
  port: number,
  sql: string,
  as?: { role?: string; database?: string; secret?: string; isAlone?: boolean },
): { isDone: boolean; lines: string[]; error: string };
