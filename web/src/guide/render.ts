import MarkdownIt from 'markdown-it';
import { headingOf } from './pages';

// What is written here is our own; HTML in it is shown as it stands.
const markdown = new MarkdownIt({ html: false, linkify: false, typographer: false });
const { rules } = markdown.renderer;
markdown.core.ruler.push('anchors', ({ tokens }) => {
  tokens.forEach((token, n) => {
    if (token.type !== 'heading_open') return;
    const inline = tokens[n + 1]!;
    const { text, anchor } = headingOf(inline.content);
    token.attrSet('id', anchor);
    const last = inline.children?.at(-1);
    if (last && text !== inline.content) last.content = last.content.replace(/\s*\{#[\w.-]+\}$/, '');
  });
});
/** Links between pages stay in the guide; those into the engineers' docs are words here. */
rules['link_open'] = (tokens, n, options, _, self) => {
  const to = tokens[n]!.attrGet('href') ?? '';
  const isPage = /^[\w/-]+(#[\w.-]+)?$/.test(to);
  if (isPage)
    tokens[n]!.attrs = [
      ['href', `/help/${to}`],
      ['data-guide', to],
    ];
  else
    tokens[n]!.attrs = [
      ['class', 'elsewhere'],
      ['role', 'note'],
    ];
  return self.renderToken(tokens, n, options);
};
rules['image'] = () => '';

/** A page of the guide as HTML. */
export const render = (text: string): string => markdown.render(text);
