import { setTimeout as pause } from 'node:timers/promises';
import { role, type Answer, type Unsent } from '@jinx/core/answers';
import { z } from 'zod';
import { networkOf } from '../access/network.ts';
import { jsonOf, SIGN_IN_BODY } from '../body.ts';
import { inTransaction } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { accountOf, isKnownBrowser, membersOf, removeMember, setRole, signIn, signOut } from '../people/index.ts';
import { nameOf } from './names.ts';
import { BROWSER_COOKIE, COOKIE, type Route } from './route.ts';

const name = nameOf('a person');
const DAY_MILLISECONDS = 24 * 3600 * 1000;
const [SESSION_DAYS, BROWSER_DAYS] = [30, 365];

export const PEOPLE: readonly Route[] = [
  {
    method: 'get',
    path: '/session',
    about: null,
    need: 'nobody',
    answer: ({ house, context, person }) => {
      const { hasSignIn } = house.settings;
      context.body = { hasSignIn, name: person?.name ?? null } satisfies Answer<'GET /session'>;
    },
  },
  {
    method: 'post',
    path: '/session',
    about: null,
    need: 'nobody',
    answer: async ({ house, context }) => {
      if (!house.settings.hasSignIn) throw new Refusal(409, 'open', 'Nobody needs to sign in here.');
      const sent = await jsonOf(context, z.strictObject({ name, password: z.string().max(1000) }), SIGN_IN_BODY);
      const account = await accountOf(house.database, sent.name);
      const cookie = context.cookies.get(BROWSER_COOKIE);
      const isKnown = account.person && (await isKnownBrowser(house.database, cookie, account.person.id));
      const browser = isKnown ? cookie! : null;
      const attempt = { network: networkOf(context.ip), person: account.key, browser };
      await pause(house.attempts.begin(attempt));
      const person = await signIn(house.database, account, sent.password, browser);
      if (!person) throw new Refusal(403, 'password', 'The name or the password is not right.');
      house.attempts.succeed(attempt);
      const keep = (cookie: string, value: string, days: number) =>
        context.cookies.set(cookie, value, {
          httpOnly: true,
          sameSite: 'strict',
          secure: context.secure,
          maxAge: days * DAY_MILLISECONDS,
        });
      keep(COOKIE, person.token, SESSION_DAYS);
      keep(BROWSER_COOKIE, person.browser, BROWSER_DAYS);
      context.body = { name: person.name } satisfies Answer<'POST /session'>;
    },
  },
  {
    method: 'delete',
    path: '/session',
    about: null,
    need: 'nobody',
    answer: async ({ house, context }) => {
      const token = context.cookies.get(COOKIE);
      if (token) {
        await signOut(house.database, token);
        await house.live.checkRights();
      }
      context.cookies.set(COOKIE, null);
      context.status = 204;
    },
  },
  {
    method: 'get',
    path: '/projects/:id/members',
    about: 'project',
    answer: async ({ house, context, id, role }) => {
      const { hasSignIn } = house.settings;
      const members = hasSignIn ? await membersOf(house.database, id) : [];
      context.body = { hasSignIn, role, members } satisfies Unsent<Answer<'GET /projects/:id/members'>>;
    },
  },
  {
    method: 'put',
    path: '/projects/:id/members',
    about: 'project',
    need: 'owner',
    answer: async ({ house, context, id }) => {
      const member = await jsonOf(context, z.strictObject({ name, role }));
      await inTransaction(house.database, (session) => setRole(session, id, member.name, member.role));
      context.status = 204;
    },
  },
  {
    method: 'delete',
    path: '/projects/:id/members/:person',
    about: 'project',
    need: 'owner',
    answer: async ({ house, context, id }) => {
      const member = z.uuid().safeParse(context.params['person']);
      if (!member.success) throw notFound('member');
      await inTransaction(house.database, (session) => removeMember(session, id, member.data));
      await house.live.checkRights();
      context.status = 204;
    },
  },
];
