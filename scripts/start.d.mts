export function portForWeb(): number;
export function portForDatabase(): number;
export function runningServer(
  file?: string,
): { pid: number; port: number | null; sources: string | null; settings: Record<string, string> } | null;
export function settingsIn(environment: Readonly<Record<string, string | undefined>>): Record<string, string>;
export function differences(was: Readonly<Record<string, string>>, is: Readonly<Record<string, string>>): string[];
export function run(words?: readonly string[]): Promise<number>;
