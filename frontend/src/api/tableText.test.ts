import { Buffer } from "node:buffer";
import { expect, it } from "vitest";
import { tableText } from "./tableText";

const TABLE = "Part\tLength\nRückwand\t600\n";
const bytes = (b: Buffer): ArrayBuffer => new Uint8Array(b).buffer;
const swapped = Buffer.from(TABLE, "utf16le").swap16();

it.each([
  ["UTF-8", Buffer.from(TABLE)],
  ["UTF-8 with its mark", Buffer.from("\ufeff" + TABLE)],
  ["UTF-16 as spreadsheets write it", Buffer.from("\ufeff" + TABLE, "utf16le")],
  ["UTF-16 without a mark", Buffer.from(TABLE, "utf16le")],
  ["UTF-16 the other way round", swapped],
  ["as Windows writes it", Buffer.from(TABLE, "latin1")],
])("a table in %s", (_, content) => {
  expect(tableText(bytes(content))).toBe(TABLE);
});
