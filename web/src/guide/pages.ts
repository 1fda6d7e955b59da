import type { PickItem } from '../bench/pick/pick';
import readme from '../../../README.md?raw';

/** A page of the artists' docs: written in Markdown, or made of what the declarations say. */
export interface GuidePage {
  readonly id: string;
  readonly title: string;
  readonly kind: 'text' | 'settings' | 'words';
  readonly text: string;
}

const FILES: Readonly<Record<string, string>> = import.meta.glob('../../../docs/guide/**/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const fileOf = (name: string): string => FILES[`../../../docs/guide/${name}.md`] ?? '';
const titleOf = (text: string): string => /^# (.+)$/m.exec(text)?.[1] ?? '';

/** A section of a text, from its heading to the next of the same rank, as a text with that heading at its top. */
function sectionOf(text: string, heading: string): string {
  const from = text.indexOf(`## ${heading}\n`);
  if (from < 0) throw new Error(`there is no section "${heading}"`);
  const until = text.indexOf('\n## ', from + 1);
  return text.slice(from + 1, until < 0 ? undefined : until);
}

const written = (id: string, text = fileOf(id)): GuidePage => ({ id, title: titleOf(text), kind: 'text', text });
/** The pages of starting points begin so. */
export const START_PAGES = 'starts/';
export const isStart = ({ id }: GuidePage): boolean => id.startsWith(START_PAGES);

/** All pages, in the order in which they are listed. */
export const PAGES: readonly GuidePage[] = [
  written('first-ten-minutes', sectionOf(readme, 'The first effect').replace(/^# .*/, '# The first ten minutes')),
  written('bench'),
  ...Object.keys(FILES)
    .map((file) => /guide\/(starts\/.+)\.md$/.exec(file)?.[1])
    .filter((id) => id !== undefined)
    .map((id) => written(id)),
  written('findings'),
  { id: 'words', title: 'Words, and what others call them', kind: 'words', text: '' },
  { id: 'settings', title: 'All settings', kind: 'settings', text: '' },
];
export const pageOf = (id: string): GuidePage => PAGES.find((page) => page.id === id) ?? PAGES[0]!;

/** A heading of a page, to which the box and tooltips lead. */
export interface Heading {
  readonly page: string;
  readonly anchor: string;
  readonly text: string;
}
const ANCHOR = /^(.*?)\s*\{#([\w.-]+)\}$/;

/** A heading's words, and the name by which it is led to. */
export function headingOf(line: string): { text: string; anchor: string } {
  const [, text = line, anchor = line.toLowerCase().replaceAll(/[^\w]+/g, '-')] = ANCHOR.exec(line) ?? [];
  return { text, anchor };
}
export const headingsOf = ({ id, text }: GuidePage): Heading[] =>
  [...text.matchAll(/^## (.+)$/gm)].map(([, line]) => ({ page: id, ...headingOf(line!) }));

/** The heading that an address means: its own name, or the kind of finding that an id of one holds, such as "layer/pop0". */
export function anchorAmong(headings: readonly Heading[], address: string): string | null {
  const parts = address.match(/[a-z]+/gi) ?? [];
  const all = [address, ...[...parts].reverse()];
  return all.find((part) => headings.some(({ anchor }) => anchor === part)) ?? null;
}

const FIRST_PAGES = ['first-ten-minutes', 'bench'];
const GROUPS = ['To begin with', 'Starting points', 'To look up'] as const;
function groupOf(page: GuidePage): (typeof GROUPS)[number] {
  if (isStart(page)) return 'Starting points';
  return FIRST_PAGES.includes(page.id) ? 'To begin with' : 'To look up';
}
/** The pages as a list to choose from, a group after the other. */
export const CHOICES: readonly PickItem[] = GROUPS.flatMap((group) =>
  PAGES.filter((page) => groupOf(page) === group).map(({ id, title }) => ({ value: id, text: title, group })),
);
