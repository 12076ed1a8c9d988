/**
 * The text of a table file, in whatever letters the spreadsheet wrote it: UTF-8, UTF-16 ("Unicode
 * text"), else as Windows does.
 */
export function tableText(content: ArrayBuffer): string {
  const bytes = new Uint8Array(content);
  const head = bytes.subarray(0, 2000);
  const zeros = head.reduce((n, b) => n + (b === 0 ? 1 : 0), 0);
  const marked = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  if (marked || zeros > head.length / 4) {
    const big = marked ? bytes[0] === 0xfe : bytes[0] === 0;
    return new TextDecoder(big ? "utf-16be" : "utf-16le").decode(bytes);
  }
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}
