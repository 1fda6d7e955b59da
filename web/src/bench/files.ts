/** Lets files be picked, each handed over by itself; `accept` is a list of endings, as in ".png,.jpg". */
export const pickFiles = (accept: string, picked: (file: File) => void | Promise<void>): void =>
  pickFile(accept, picked, true);
/** Lets a file be picked. */
export function pickFile(accept: string, picked: (file: File) => void | Promise<void>, multiple = false): void {
  const input = document.createElement('input');
  input.type = 'file';
  Object.assign(input, { accept, multiple });
  input.onchange = () => {
    for (const file of input.files ?? []) void picked(file);
  };
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
