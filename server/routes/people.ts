import { z } from 'zod';
import { jsonOf } from '../body.ts';
import { inTransaction } from '../database.ts';
import { notFound, Refusal } from '../errors.ts';
import { membersOf, removeMember, setRole, signIn, signOut } from '../people/index.ts';
import { COOKIE, type Route } from './route.ts';

const name = z.string().trim().min(1).max(80);
const DAY_MILLISECONDS = 24 * 3600 * 1000;

export const PEOPLE: readonly Route[] = [
  {
    method: 'get',
    path: '/session',
    about: null,
    need: 'nobody',
    answer: ({ house, context, person }) => {
      context.body = { hasSignIn: house.settings.hasSignIn, name: person?.name ?? null };
    },
  },
  {
    method: 'post',
    path: '/session',
    about: null,
    need: 'nobody',
    answer: async ({ house, context }) => {
      const sent = await jsonOf(context, z.strictObject({ name, password: z.string().max(1000) }));
      if (!house.settings.hasSignIn) throw new Refusal(409, 'open', 'Nobody needs to sign in here.');
      const keys = [`name ${sent.name.toLowerCase()}`, `address ${context.ip}`];
      for (const key of keys) house.attempts.mustWait(key);
      // Each counts as wrong until it is seen to be right, so that many at once are no way round.
      for (const key of keys) house.attempts.wrong(key);
      const person = await signIn(house.database, sent.name, sent.password);
      if (!person) throw new Refusal(403, 'password', 'The name or the password is not right.');
      for (const key of keys) house.attempts.right(key);
      context.cookies.set(COOKIE, person.token, {
        httpOnly: true,
        sameSite: 'strict',
        secure: context.secure,
        maxAge: 30 * DAY_MILLISECONDS,
      });
      context.body = { name: person.name };
    },
  },
  {
    method: 'delete',
    path: '/session',
    about: null,
    need: 'nobody',
    answer: async ({ house, context }) => {
      const token = context.cookies.get(COOKIE);
      if (token) await signOut(house.database, token);
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
      context.body = { hasSignIn, role, members: hasSignIn ? await membersOf(house.database, id) : [] };
    },
  },
  {
    method: 'put',
    path: '/projects/:id/members',
    about: 'project',
    need: 'owner',
    answer: async ({ house, context, id }) => {
      const member = await jsonOf(context, z.strictObject({ name, role: z.enum(['viewer', 'editor', 'owner']) }));
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
      context.status = 204;
    },
  },
];
