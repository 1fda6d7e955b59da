import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { Refusal } from '../errors.ts';

/** Cost of a password's hash: about 60 ms and 32 MB (Percival, 2009, "Stronger Key Derivation via Sequential Memory-Hard Functions"). */
const [N, R, P, LENGTH] = [2 ** 15, 8, 1, 32];
const LEAST_LETTERS = 10;
const MOST_LETTERS = 200;

const derived = (password: string, salt: Buffer, n = N, r = R, p = P): Promise<Buffer> =>
  new Promise((done, fail) =>
    scrypt(password.normalize('NFKC'), salt, LENGTH, { N: n, r, p, maxmem: 256 * n * r }, (error, key) =>
      error ? fail(error) : done(key),
    ),
  );

/** A password as it is stored. @throws Refusal when it is too short to be one. */
export async function storedPassword(password: string): Promise<string> {
  if (password.length < LEAST_LETTERS || password.length > MOST_LETTERS)
    throw new Refusal(422, 'password', `A password has ${LEAST_LETTERS} to ${MOST_LETTERS} letters.`);
  const salt = randomBytes(16);
  const key = await derived(password, salt);
  return ['scrypt', N, R, P, salt.toString('base64'), key.toString('base64')].join('$');
}

/** Whether a password is the one that is stored. */
export async function isPassword(password: string, stored: string): Promise<boolean> {
  const [, n, r, p, salt, key] = stored.split('$') as [string, string, string, string, string, string];
  const known = Buffer.from(key, 'base64');
  const own = await derived(
    password.slice(0, MOST_LETTERS),
    Buffer.from(salt, 'base64'),
    Number(n),
    Number(r),
    Number(p),
  );
  return timingSafeEqual(known, own);
}
