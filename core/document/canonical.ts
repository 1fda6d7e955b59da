/** Text that is the same for equal documents: keys sorted, no spaces, −0 written as 0. */
export function canonicalText(value: unknown): string {
  if (typeof value === 'number') return JSON.stringify(value === 0 ? 0 : value);
  if (Array.isArray(value)) return `[${value.map(canonicalText).join(',')}]`;
  if (typeof value === 'object' && value !== null) {
    const fields = Object.entries(value).filter(([, field]) => field !== undefined);
    fields.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
    return `{${fields.map(([key, field]) => `${JSON.stringify(key)}:${canonicalText(field)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}
