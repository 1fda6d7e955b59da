import { pino } from 'pino';
import { makeApp } from './app.ts';
import { connect, migrate } from './database.ts';
import { seed } from './kit.ts';

const log = pino();
const port = Number(process.env['JINX_PORT'] ?? 7411);
const url = process.env['JINX_DATABASE_URL'];
if (!url) {
  log.fatal('JINX_DATABASE_URL is not set: start Jinx with ./jinx start');
  process.exit(1);
}
const database = connect(url);
database.on('error', (error) => log.error(error, 'the database connection was lost'));
await migrate(database);
await seed(database);
const server = makeApp(database, log).listen(port, '127.0.0.1', () => log.info(`listening on ${port}`));
server.on('error', (error) => {
  log.fatal(error);
  process.exit(1);
});
const stop = () => server.close(() => void database.end().then(() => process.exit(0)));
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
