// How many events of input it takes to make seven kinds of effect by hand, from an empty one, and whether each ends in
// the document it is to be. With JINX_KEEP_ACTIONS=1 what they end in is kept as the reference, and docs/actions.md written.
import { readFileSync, writeFileSync } from 'node:fs';
import { format } from 'prettier';
import { keepReference, keptReference, made, openEmpty, referenceOf } from './actions/make.ts';
import { RUNS } from './actions/runs.ts';
import { rounded } from './figures.ts';
import { inChromium } from './inChromium.ts';

const isKeeping = process.env['JINX_KEEP_ACTIONS'] === '1';
const PAGE = new URL('../docs/actions.md', import.meta.url);
const MARK = '<!-- written by JINX_KEEP_ACTIONS=1 ./jinx bench actions -->';

interface Counted {
  id: string;
  what: string;
  events: number;
  target: number;
  isSame: boolean;
  costliest: string;
}
const results = await inChromium(async (browser, baseURL) => {
  const counted: Counted[] = [];
  for (const run of RUNS) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL });
    const page = await context.newPage();
    const project = await openEmpty(page, run.what);
    const { hand, document } = await made(page, run);
    if (isKeeping) keepReference(run, document);
    const chapters = hand.done.filter(({ what }) => what.startsWith('open ')).length;
    const numbers = hand.done.filter(({ what }) => / [\d.]/.test(what)).length * 2;
    counted.push({
      id: run.id,
      what: run.what,
      events: hand.events,
      target: run.target,
      isSame: referenceOf(document) === keptReference(run),
      costliest: `${chapters} to open chapters, ${numbers} for numbers`,
    });
    await page.request.delete(`/api/projects/${project}`);
    await context.close();
  }
  return counted;
});
const table = results.map(
  ({ what, events, target, costliest }) =>
    `| ${what} | ${events} | ${target} | ${rounded(events / target)} | ${costliest} |`,
);
if (isKeeping) {
  const [words] = readFileSync(PAGE, 'utf8').split(MARK);
  const text = `${words}${MARK}\n\n| Effect | Events | Target | Ratio | Of these |\n|---|---|---|---|---|\n${table.join('\n')}\n`;
  writeFileSync(PAGE, await format(text, { parser: 'markdown' }));
}
console.log(table.join('\n'));
console.log(
  JSON.stringify({
    benchmark: 'actions',
    events: Object.fromEntries(results.map(({ id, events }) => [id, events])),
    targets: Object.fromEntries(results.map(({ id, target }) => [id, target])),
    worstRatio: rounded(Math.max(...results.map(({ events, target }) => events / target))),
    same: results.filter(({ isSame }) => isSame).length,
    differing: results.filter(({ isSame }) => !isSame).map(({ id }) => id),
  }),
);
