/** A moment that the server told, as people read it. */
export const when = (text: string): string =>
  new Date(text).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
