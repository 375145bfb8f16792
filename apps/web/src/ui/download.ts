/** Hands a file to the browser. */
export function download(name: string, parts: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([parts], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name as a file may have it anywhere. */
export const fileName = (name: string, extension: string): string =>
  `${
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60)
      .toLowerCase() || 'yunta'
  }.${extension}`;
