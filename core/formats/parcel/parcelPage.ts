const escaped: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};
/** Text as it may stand in a page, between tags and in attributes. */
const inPage = (text: string): string => text.replaceAll(/[&<>"']/g, (letter) => escaped[letter]!);

/** The parts of a page that plays a parcel: before its bytes, which stand in it as base64, and after them. */
export function parcelPage(template: string, title: string): { readonly before: string; readonly after: string } {
  const [before = '', after = ''] = template.split('%PARCEL%');
  return { before: before.replaceAll('%TITLE%', () => inPage(title)), after };
}
