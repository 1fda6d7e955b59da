// A part of ./jinx restore: brings a database that was restored up to this Jinx, with nobody signed in.
import { connect, migrate, NewerDatabase } from './database.ts';

const database = connect(process.env['JINX_DATABASE_URL']!, { isPatient: true });
try {
  await migrate(database);
  await database.query('delete from sessions');
} catch (error) {
  console.error(
    error instanceof NewerDatabase ? error.message : `The backup cannot be used: ${(error as Error).message}`,
  );
  process.exitCode = 1;
} finally {
  await database.end();
}
