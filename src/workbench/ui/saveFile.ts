/** Hands a text or octets to the browser as a file to save. */
export function saveFile(name: string, type: string, content: string | Uint8Array<ArrayBuffer>): void {
  const url = URL.createObjectURL(
    new Blob([content], { type: typeof content === 'string' ? `${type};charset=utf-8` : type }),
  );
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
