// How often something that was acknowledged is lost when server and database are killed at random moments.
import { cpus } from 'node:os';
import { killRun } from '../server/testing/killing.ts';
import { rounded } from './figures.ts';

const isQuiet = process.argv.includes('--json');
const asked = process.argv.find((argument) => argument.startsWith('--kills='));
/** Of each kind. */
const KILLS = asked ? Number(asked.slice('--kills='.length)) : 100;

const outcome = await killRun({ kills: KILLS, port: 7431, databasePort: 7432 }, (sentence) => {
  if (!isQuiet) console.log(sentence);
});
const result = {
  benchmark: 'kill',
  kills: outcome.kills,
  lost: outcome.lost,
  broken: outcome.broken,
  behind: outcome.behind,
  acknowledged: outcome.acknowledged,
  editsPerSecond: rounded(outcome.editsPerSecond),
  ...outcome.syncs,
  cores: cpus().length,
};
console.log(
  `Killed ${result.kills} times with ${result.editsPerSecond} edits a second in flight: of ${result.acknowledged} that were acknowledged ${result.lost} were lost; ${result.broken} documents were broken, ${result.behind} siblings did not follow.`,
);
console.log(JSON.stringify(result));
