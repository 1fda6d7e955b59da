// How many actions it takes by hand, from an empty effect: seven kinds of effect, each of which must end in the document
// it is to be, and the twelve tasks of an ordinary day, each of which must hold what was asked for. With
// JINX_KEEP_ACTIONS=1 what the seven end in is kept as the reference, and docs/actions.md written.
import { readFileSync, writeFileSync } from 'node:fs';
import type { Browser } from '@playwright/test';
import { format } from 'prettier';
import type { Effect } from '@jinx/core/document';
import type { Hand } from './actions/hand.ts';
import { keepReference, keptReference, made, openEmpty, referenceOf } from './actions/make.ts';
import { RUNS, type Run } from './actions/runs.ts';
import { TASKS } from './actions/tasks/index.ts';
import { missing } from './actions/tasks/task.ts';
import { rounded } from './figures.ts';
import { inChromium } from './inChromium.ts';

const isKeeping = process.env['JINX_KEEP_ACTIONS'] === '1';
const PAGE = new URL('../docs/actions.md', import.meta.url);
const MARK = '<!-- written by JINX_KEEP_ACTIONS=1 ./jinx bench actions -->';

/** Makes an effect in a project and a window of its own. */
async function workedThrough(
  browser: Browser,
  baseURL: string,
  run: Pick<Run, 'what' | 'make'>,
): Promise<{ hand: Hand; document: Effect }> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL });
  const page = await context.newPage();
  const project = await openEmpty(page, run.what);
  const result = await made(page, run);
  await page.request.delete(`/api/projects/${project}`);
  await context.close();
  return result;
}

const { kinds, tasks } = await inChromium(async (browser, baseURL) => {
  const kinds = [];
  for (const run of RUNS) {
    const { hand, document } = await workedThrough(browser, baseURL, run);
    if (isKeeping) keepReference(run, document);
    kinds.push({ ...run, actions: hand.actions, isSame: referenceOf(document) === keptReference(run) });
  }
  const tasks = [];
  for (const task of TASKS) {
    const { hand, document } = await workedThrough(browser, baseURL, task);
    tasks.push({ ...task, actions: hand.actions, missing: missing(task, document) });
  }
  return { kinds, tasks };
});

const sumOf = (numbers: readonly number[]) => numbers.reduce((sum, number) => sum + number, 0);
const [before, now] = [sumOf(tasks.map((task) => task.before)), sumOf(tasks.map(({ actions }) => actions))];
const kindRows = kinds.map(
  ({ what, actions, target }) => `| ${what} | ${actions} | ${target} | ${rounded(actions / target)} |`,
);
const taskRow = (what: string, [first, second]: readonly [number, number]) =>
  `| ${what} | ${first} | ${second} | ${rounded(second / first)} |`;
const taskRows = [
  ...tasks.map((task) => taskRow(task.what, [task.before, task.actions])),
  taskRow('all twelve', [before, now]),
];
const TABLES = `| Effect | Actions | Target | Ratio |
|---|---|---|---|
${kindRows.join('\n')}

## The twelve tasks of an ordinary day

| Task | First counted | Now | Ratio |
|---|---|---|---|
${taskRows.join('\n')}
`;
if (isKeeping) {
  const [words] = readFileSync(PAGE, 'utf8').split(MARK);
  writeFileSync(PAGE, await format(`${words}${MARK}\n\n${TABLES}`, { parser: 'markdown' }));
}
console.log(TABLES);
console.log(
  JSON.stringify({
    benchmark: 'actions',
    kinds: kinds.map(({ id, actions, target }) => ({ name: id, events: actions, target })),
    worstRatio: rounded(Math.max(...kinds.map(({ actions, target }) => actions / target))),
    same: kinds.filter(({ isSame }) => isSame).length,
    differing: kinds.filter(({ isSame }) => !isSame).map(({ id }) => id),
    tasks: Object.fromEntries(tasks.map(({ id, actions }) => [id, actions])),
    tasksBefore: Object.fromEntries(tasks.map((task) => [task.id, task.before])),
    sum: now,
    sumBefore: before,
    share: rounded(now / before),
    missing: Object.fromEntries(tasks.flatMap((task) => (task.missing.length ? [[task.id, task.missing]] : []))),
  }),
);
