import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { failedScreens, failedUnits, toldFailures } from './failures.mjs';
import { ROOT } from './shell.mjs';

describe('what failed', () => {
  it('is named with the start of its message, and nothing else is', () => {
    const units = {
      testResults: [
        {
          name: path.join(ROOT, 'core/order.test.ts'),
          status: 'failed',
          message: '',
          assertionResults: [
            { status: 'passed', fullName: 'order is kept', failureMessages: [] },
            {
              status: 'failed',
              fullName: 'order is found',
              failureMessages: [
                '\u001b[31mError\u001b[39m: Property failed\n\n  { seed: 7 }\nCounterexample: [1]\n    at x',
              ],
            },
          ],
        },
        {
          name: path.join(ROOT, 'core/broken.test.ts'),
          status: 'failed',
          message: 'No such file',
          assertionResults: [],
        },
      ],
    };
    const screens = {
      suites: [
        {
          title: 'stage.spec.ts',
          specs: [{ title: 'is drawn', ok: true, tests: [] }],
          suites: [
            {
              title: 'a ribbon',
              specs: [
                { title: 'closes', ok: false, tests: [{ results: [{ error: { message: 'x'.repeat(999) } }] }] },
                { title: 'never ran', ok: false, tests: [{ results: [] }] },
              ],
            },
          ],
        },
      ],
    };
    const told = toldFailures([...failedUnits(units), ...failedScreens(screens)]).split('\n');
    expect(told).toEqual([
      '✗ core/order.test.ts › order is found',
      '    Error: Property failed',
      '    { seed: 7 }',
      '    Counterexample: [1]',
      '✗ core/broken.test.ts',
      '    No such file',
      '✗ stage.spec.ts › a ribbon › closes',
      `    ${'x'.repeat(240)}…`,
      '✗ stage.spec.ts › a ribbon › never ran',
    ]);
  });

  it('is nothing where nothing failed, or no report was written', () => {
    expect(toldFailures([...failedUnits(null), ...failedScreens(null)])).toBe('');
  });
});
