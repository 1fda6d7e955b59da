/** What is shipped of others, with the licences. */
export function noticesOf(workspaces: readonly string[]): string;
