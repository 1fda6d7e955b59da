import { pino } from 'pino';
import { connect, migrate, NewerDatabase, type Database } from './database.ts';
import { forgetOld } from './deleted.ts';
import { forLog } from './errors.ts';
import { seed } from './kit.ts';
import { adopt } from './people/index.ts';
import { serve } from './serve.ts';
import { SettingsError, settingsOf } from './settings.ts';

/** The supervisor understands by this that starting the server again is of no use. */
const NO_USE = 78;
const FORGET_EVERY_MILLISECONDS = 6 * 3600 * 1000;

/** Where people sign in there is somebody who can; whatever nobody owns is theirs. */
async function mustHavePeople(database: Database): Promise<void> {
  const { rowCount } = await database.query('select 1 from people limit 1');
  if (rowCount === 0)
    throw new SettingsError(
      'Nobody can sign in yet: let the first person in with ./jinx people add NAME, then start again.',
    );
  await adopt(database);
}

const log = pino();
// A fault that nothing caught leaves the process in a state that nobody knows: it ends, and is started anew.
const endBy = (fault: string) => (error: unknown) => {
  log.fatal(forLog(error), fault);
  process.exit(70);
};
process.on('uncaughtException', endBy('an error was not caught'));
process.on('unhandledRejection', endBy('a rejected promise was not caught'));
const url = process.env['JINX_DATABASE_URL'];
if (!url) {
  log.fatal('JINX_DATABASE_URL is not set: start Jinx with ./jinx start.');
  process.exit(NO_USE);
}
try {
  const settings = settingsOf(process.env);
  const database = connect(url);
  const patient = connect(url, { isPatient: true });
  for (const pool of [database, patient])
    pool.on('error', (error) => log.error(forLog(error), 'the database connection was lost'));
  await migrate(patient);
  await seed(database);
  if (settings.hasSignIn) await mustHavePeople(database);
  const { stop } = await serve(database, log, settings);
  log.info(`listening on ${settings.host}:${settings.port}`);
  const forget = () =>
    forgetOld(patient).catch((error: unknown) => log.error(forLog(error), 'old things were not forgotten'));
  void forget();
  setInterval(() => void forget(), FORGET_EVERY_MILLISECONDS).unref();
  const end = () =>
    void stop()
      .then(() => Promise.all([database.end(), patient.end()]))
      .then(() => process.exit(0));
  process.once('SIGTERM', end);
  process.once('SIGINT', end);
  // The supervisor is gone: nobody would start this one again, or end it.
  process.once('disconnect', end);
} catch (error) {
  const isForPeople = error instanceof SettingsError || error instanceof NewerDatabase;
  if (isForPeople) log.fatal(error.message);
  else log.fatal(forLog(error), 'the server could not start');
  process.exit(isForPeople ? NO_USE : 1);
}
