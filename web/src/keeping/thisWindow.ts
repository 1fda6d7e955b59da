/** Names this window among all windows of this browser. While it is open it holds a lock of that name. */
const OWN = crypto.randomUUID();
const PREFIX = 'jinx window ';
/** A tab that is loaded anew gives its old name up a moment later. */
const PATIENCE_MILLISECONDS = 1500;

/** What this tab was called before it was loaded anew. */
let before: string | null = null;

/** Takes this window's name, so that others know that it is open. */
export function enterWindow(): void {
  before = sessionStorage.getItem(PREFIX);
  sessionStorage.setItem(PREFIX, OWN);
  void navigator.locks.request(PREFIX + OWN, () => new Promise(() => undefined));
}

export const thisWindow = (): string => OWN;

/** Windows of this browser that are open, by name. */
export async function openWindows(): Promise<ReadonlySet<string>> {
  if (before !== null)
    await navigator.locks
      .request(PREFIX + before, { signal: AbortSignal.timeout(PATIENCE_MILLISECONDS) }, () => undefined)
      .catch(() => undefined);
  before = null;
  const { held } = await navigator.locks.query();
  return new Set((held ?? []).map(({ name }) => (name ?? '').slice(PREFIX.length)));
}
