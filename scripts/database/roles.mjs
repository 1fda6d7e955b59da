// Moves a cluster of before, whose one role may do all, to a role that owns the database and one that may do all.

/** The role that does it: no role can be renamed by itself. */
const MOVER = 'jinx_mover';

/** All that a database's owner made in it. */
const HAND_OVER = (owner) => `do $$ declare thing record; begin
  for thing in select pg_class.oid::regclass as name from pg_class join pg_namespace on pg_namespace.oid = relnamespace
    where nspname = 'public' and relkind in ('r', 'p', 'v', 'S')
      and not exists (select 1 from pg_depend where objid = pg_class.oid and deptype in ('a', 'i')) loop
    execute format('alter table %s owner to ${owner}', thing.name);
  end loop;
end $$;`;

/**
 * @param ask runs SQL in one transaction: (sql, {role, database, secret}) gives {isDone, lines, error}.
 * @returns what went wrong, or null. It may be called again after it was cut short.
 */
export function moveToOwnRole(ask, { DATABASE, OWNER, ADMIN, secrets }) {
  const before = { role: OWNER, secret: secrets[OWNER] };
  const known = ask('select datname from pg_database', before);
  if (!known.isDone) return known.error;
  // The oldest clusters have it in the database "postgres".
  if (!known.lines.includes(DATABASE)) {
    const renamed = ask(`alter database postgres rename to ${DATABASE}`, before);
    if (!renamed.isDone) return renamed.error;
  }
  const steps = [
    [`drop role if exists ${MOVER}; create role ${MOVER} superuser login password '${secrets[ADMIN]}'`, before],
    [
      `alter role ${OWNER} rename to ${ADMIN};
       alter role ${ADMIN} password '${secrets[ADMIN]}';
       create role ${OWNER} login password '${secrets[OWNER]}';
       alter database ${DATABASE} owner to ${OWNER};
       ${HAND_OVER(OWNER)}`,
      { role: MOVER, database: DATABASE, secret: secrets[ADMIN] },
    ],
  ];
  for (const [sql, as] of steps) {
    const { isDone, error } = ask(sql, as);
    if (!isDone) return error;
  }
  const { isDone, error } = ask(`drop role ${MOVER}`, {});
  return isDone ? null : error;
}
