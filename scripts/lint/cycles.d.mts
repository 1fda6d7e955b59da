export function importGraph(root: string, folders: readonly string[]): Map<string, Set<string>>;
export function findCycles(graph: ReadonlyMap<string, ReadonlySet<string>>): Map<string, string[]>;
