/** Lets a file be picked; `accept` is a list of endings, as in ".png,.jpg". */
export function pickFile(accept: string, picked: (file: File) => void | Promise<void>): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.onchange = () => void (input.files?.[0] && picked(input.files[0]));
  input.click();
}

/** Saves text as a file of the person's own. */
export const saveText = (name: string, text: string, type: string): void =>
  saveBlob(name, new Blob([text], { type }));

/** Saves what was made as a file of the person's own. */
export function saveBlob(name: string, blob: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The browser has taken it over by the next turn.
  setTimeout(() => URL.revokeObjectURL(link.href), 0);
}
