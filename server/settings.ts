/** How a server is set up, out of its environment. */
export interface Settings {
  readonly port: number;
  readonly host: string;
  /** Whether people sign in; on loopback, alone, nobody needs to. */
  readonly hasSignIn: boolean;
  /** Names it answers to beside those of this machine. */
  readonly names: readonly string[];
  /** Whether what stands before it says who asks, and how. */
  readonly isBehindProxy: boolean;
  readonly costlyPerMinute: number;
}

export const DEFAULTS: Settings = {
  port: 7411,
  host: '127.0.0.1',
  hasSignIn: false,
  names: [],
  isBehindProxy: false,
  costlyPerMinute: 240,
};

const isLoopback = (host: string): boolean => host === 'localhost' || host === '::1' || /^127\./.test(host);

/** A way of setting it up that is not safe, or not possible: in a sentence. */
export class SettingsError extends Error {}

/** @throws SettingsError */
export function settingsOf(environment: Readonly<Record<string, string | undefined>>): Settings {
  const settings: Settings = {
    port: Number(environment['JINX_PORT'] ?? DEFAULTS.port),
    host: environment['JINX_HOST'] ?? DEFAULTS.host,
    hasSignIn: environment['JINX_SIGN_IN'] === 'on',
    names: (environment['JINX_NAMES'] ?? '')
      .toLowerCase()
      .split(/[\s,]+/)
      .filter(Boolean),
    isBehindProxy: environment['JINX_BEHIND_PROXY'] === 'on',
    costlyPerMinute: Number(environment['JINX_COSTLY_A_MINUTE'] ?? DEFAULTS.costlyPerMinute),
  };
  const isWild = (value: number) => !Number.isInteger(value) || value < 0 || value > 1e9;
  if (isWild(settings.port) || settings.port > 65535) throw new SettingsError('JINX_PORT is the number of a port.');
  if (isWild(settings.costlyPerMinute) || settings.costlyPerMinute < 1)
    throw new SettingsError('JINX_COSTLY_A_MINUTE is a whole number, 1 or more.');
  if (!isLoopback(settings.host) && !settings.hasSignIn)
    throw new SettingsError(
      `Jinx does not open itself to others (JINX_HOST=${settings.host}) while nobody signs in: set JINX_SIGN_IN=on, and let people in with ./jinx people add NAME.`,
    );
  if (!isLoopback(settings.host) && settings.names.length === 0)
    throw new SettingsError('Say by which names others reach Jinx: JINX_NAMES=jinx.example,10.0.0.7');
  // At the address itself it answers too.
  return { ...settings, names: [...settings.names, settings.host] };
}
