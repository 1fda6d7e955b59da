// What failed, in a line or three each: said once more at the end of a run, where a reader who has only the end finds it.
import path from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ROOT } from './shell.mjs';

const LINES = 3;
const LENGTH = 240;

/** The first lines of a message, none of them long, without colours. */
function startOf(message = '') {
  return stripVTControlCharacters(message)
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .slice(0, LINES)
    .map((line) => (line.length > LENGTH ? `${line.slice(0, LENGTH)}…` : line));
}

/** The failed tests of a Vitest report; files that could not be run count as one each. */
export function failedUnits(report) {
  return (report?.testResults ?? []).flatMap(({ name: file, status, message, assertionResults }) => {
    const name = path.relative(ROOT, file);
    const failed = assertionResults.filter((test) => test.status === 'failed');
    if (status === 'failed' && !failed.length) return [{ name, lines: startOf(message) }];
    return failed.map((test) => ({ name: `${name} › ${test.fullName}`, lines: startOf(test.failureMessages[0]) }));
  });
}

/** The failed tests of a Playwright report. */
export function failedScreens(report) {
  const within = (suite, names) => [
    ...(suite.suites ?? []).flatMap((inner) => within(inner, [...names, inner.title])),
    ...(suite.specs ?? [])
      .filter(({ ok }) => !ok)
      .map((spec) => ({
        name: [...names, spec.title].join(' › '),
        lines: startOf(spec.tests.flatMap(({ results }) => results).find(({ error }) => error)?.error.message),
      })),
  ];
  return within({ suites: report?.suites }, []);
}

/** The failures as text, or nothing where there are none. */
export function toldFailures(failures) {
  return failures
    .map(({ name, lines }) => [`✗ ${name}`, ...lines.map((line) => `    ${line}`)].join('\n'))
    .join('\n');
}
