export function isListening(port: number): Promise<boolean>;
