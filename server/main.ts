import { pino } from 'pino';
import { connect, migrate } from './database.ts';
import { forgetOld } from './deleted.ts';
import { seed } from './kit.ts';
import { serve } from './serve.ts';

const FORGET_EVERY_MILLISECONDS = 6 * 3600 * 1000;

const log = pino();
const port = Number(process.env['JINX_PORT'] ?? 7411);
const url = process.env['JINX_DATABASE_URL'];
if (!url) {
  log.fatal('JINX_DATABASE_URL is not set: start Jinx with ./jinx start');
  process.exit(1);
}
try {
  const database = connect(url);
  database.on('error', (error) => log.error(error, 'the database connection was lost'));
  await migrate(database);
  await seed(database);
  const { stop } = await serve(database, log, port);
  log.info(`listening on ${port}`);
  const forget = () =>
    forgetOld(database).catch((error: unknown) => log.error(error, 'old things were not forgotten'));
  void forget();
  setInterval(forget, FORGET_EVERY_MILLISECONDS).unref();
  const end = () =>
    void stop()
      .then(() => database.end())
      .then(() => process.exit(0));
  process.once('SIGTERM', end);
  process.once('SIGINT', end);
} catch (error) {
  log.fatal(error);
  process.exit(1);
}
