export const ROOT: string;
export function isListening(port: number): Promise<boolean>;
