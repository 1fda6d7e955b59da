import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files whose tests take the longest, by what they take: one that began last would keep one core busy alone. */
const LONGEST = [
  'core/simulation/bits.test.ts',
  'scripts/commands.test.ts',
  'server/kill.test.ts',
  'core/simulation/ahead.test.ts',
  'core/simulation/surfaces/shots.test.ts',
  'demo/figures/shots.test.ts',
  'server/backup.test.ts',
  'server/defence.test.ts',
];

const rank = ({ moduleId }: TestSpecification): number => {
  const at = LONGEST.findIndex((file) => moduleId.endsWith(file));
  return at < 0 ? LONGEST.length : at;
};

/** Begins with the longest files; the others follow as Vitest has them, the largest first. */
export default class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return (await super.sort(files)).sort((a, b) => rank(a) - rank(b));
  }
}
