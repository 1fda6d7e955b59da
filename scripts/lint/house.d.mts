export const house: { rules: Record<string, unknown> };
