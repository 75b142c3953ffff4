/** Gives the person a file that the page itself made. */
export function download(name: string, content: string | Blob, type = 'application/json'): void {
  const address = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
