/** Lets a file be picked; `accept` is a list of endings, as in ".png,.jpg". */
export function pickFile(accept: string, picked: (file: File) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.onchange = () => input.files?.[0] && picked(input.files[0]);
  input.click();
}
