export function run(): Promise<number>;
