import { isIP } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** How a server is set up, out of its environment. */
export interface Settings {
  readonly port: number;
  readonly host: string;
  /** Whether people sign in; on loopback, alone, nobody needs to. */
  readonly hasSignIn: boolean;
  /** Names it answers to beside those of this machine. */
  readonly names: readonly string[];
  /** Whether the proxy before it says who asks, and how. */
  readonly isBehindProxy: boolean;
  /** Costly requests that one person may make a minute. */
  readonly costlyPerMinute: number;
  /** Connections in all, and from one address. */
  readonly connections: number;
  readonly connectionsPerAddress: number;
  /** Disk that one project and the whole database may take, in bytes. */
  readonly projectBytes: number;
  readonly totalBytes: number;
  /** Where uploads and parcels lie while they are worked on. */
  readonly incomingFolder: string;
}

const GIGABYTE = 1024 ** 3;

export const DEFAULTS: Settings = {
  port: 7411,
  host: '127.0.0.1',
  hasSignIn: false,
  names: [],
  isBehindProxy: false,
  costlyPerMinute: 240,
  connections: 256,
  connectionsPerAddress: 32,
  projectBytes: 4 * GIGABYTE,
  totalBytes: 20 * GIGABYTE,
  incomingFolder: path.join(tmpdir(), `jinx-incoming-${process.pid}`),
};

/** A setup that is not safe, or not possible: in a sentence. */
export class SettingsError extends Error {}

type Environment = Readonly<Record<string, string | undefined>>;
/** Reads one variable. @throws SettingsError when its value is none that it may have. */
type Reader<T> = (name: string, text: string) => T;

const ON_OFF: Reader<boolean> = (name, text) => {
  if (text === 'on') return true;
  if (text === 'off') return false;
  throw new SettingsError(`${name} is on or off, not "${text}".`);
};
const whole =
  (least: number, most: number, what: string, unit = 1): Reader<number> =>
  (name, text) => {
    if (/^\d{1,10}$/.test(text) && Number(text) >= least && Number(text) <= most) return Number(text) * unit;
    throw new SettingsError(`${name} is ${what}, ${least} to ${most}; not "${text}".`);
  };
const isHostName = (text: string) => isIP(text) !== 0 || /^[a-z0-9]([a-z0-9.-]{0,251}[a-z0-9])?$/i.test(text);
const HOST: Reader<string> = (name, text) => {
  if (isHostName(text)) return text;
  throw new SettingsError(`${name} is the address to listen on, as 0.0.0.0; not "${text}".`);
};
const NAMES: Reader<readonly string[]> = (name, text) => {
  const names = text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);
  const wrong = names.find((each) => !isHostName(each));
  if (wrong === undefined) return names;
  throw new SettingsError(`${name} are host names without ports, as jinx.example,10.0.0.7; not "${wrong}".`);
};
const FOLDER: Reader<string> = (_, text) => path.resolve(text);

/** Every setting by its variable. */
const READERS: { readonly [K in keyof Settings]: readonly [variable: string, read: Reader<Settings[K]>] } = {
  port: ['JINX_PORT', whole(1, 65535, 'the number of a port')],
  host: ['JINX_HOST', HOST],
  hasSignIn: ['JINX_SIGN_IN', ON_OFF],
  names: ['JINX_NAMES', NAMES],
  isBehindProxy: ['JINX_BEHIND_PROXY', ON_OFF],
  costlyPerMinute: ['JINX_COSTLY_A_MINUTE', whole(1, 1e9, 'a number of requests')],
  connections: ['JINX_CONNECTIONS', whole(8, 65535, 'a number of connections in all')],
  connectionsPerAddress: ['JINX_CONNECTIONS_AN_ADDRESS', whole(8, 65535, 'a number of connections from one address')],
  projectBytes: ['JINX_GIGABYTES_A_PROJECT', whole(1, 100_000, 'the gigabytes one project may take', GIGABYTE)],
  totalBytes: ['JINX_GIGABYTES', whole(1, 100_000, 'the gigabytes all may take', GIGABYTE)],
  incomingFolder: ['JINX_INCOMING', FOLDER],
};

/** Variables that are read elsewhere: by the commands, the tests and the benchmarks. */
const ELSEWHERE = /^JINX_(KEEP_ACTIONS|DATABASE_URL|DATABASE_PORT|CLUSTER|ADDRESS|TEST_\w+)$/;

const isLoopback = (host: string): boolean => host === 'localhost' || host === '::1' || /^127\./.test(host);

/** @throws SettingsError */
export function settingsOf(environment: Environment): Settings {
  const known = new Set<string>(Object.values(READERS).map(([variable]) => variable));
  const unknown = Object.keys(environment).find(
    (name) => name.startsWith('JINX_') && !known.has(name) && !ELSEWHERE.test(name),
  );
  if (unknown !== undefined)
    throw new SettingsError(`${unknown} is no setting of Jinx; there are ${[...known].join(', ')}.`);
  const read = <K extends keyof Settings>(key: K): Settings[K] => {
    const [variable, reader] = READERS[key];
    const text = environment[variable]?.trim();
    return text === undefined || text === '' ? DEFAULTS[key] : reader(variable, text);
  };
  const settings = Object.fromEntries(
    (Object.keys(READERS) as (keyof Settings)[]).map((key) => [key, read(key)]),
  ) as unknown as Settings;
  mustBeSafe(settings);
  // At the address itself it answers too.
  return { ...settings, names: [...settings.names, settings.host] };
}

function mustBeSafe({ host, hasSignIn, names, isBehindProxy }: Settings): void {
  if (!isLoopback(host) && !hasSignIn)
    throw new SettingsError(
      `Jinx does not open itself to others (JINX_HOST=${host}) while nobody signs in: set JINX_SIGN_IN=on, and let people in with ./jinx people add NAME.`,
    );
  if (!isLoopback(host) && names.length === 0)
    throw new SettingsError('Say by which names others reach Jinx: JINX_NAMES=jinx.example,10.0.0.7');
  const forOthers = names.length > 0 ? 'JINX_NAMES' : isBehindProxy ? 'JINX_BEHIND_PROXY' : null;
  if (forOthers && !hasSignIn)
    throw new SettingsError(
      `${forOthers} is for a server that others reach, and there nobody may change anything unseen: set JINX_SIGN_IN=on too.`,
    );
}
