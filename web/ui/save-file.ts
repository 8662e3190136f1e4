/** Passes a file that was made in the page to the browser's downloads. */
export function saveFile(name: string, content: Blob | Uint8Array, type = ''): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(
    content instanceof Blob ? content : new Blob([content as BlobPart], { type }),
  );
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
