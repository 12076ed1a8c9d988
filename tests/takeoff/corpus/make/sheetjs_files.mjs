// Lists by SheetJS and ExcelJS: workbooks of several sheets, merged headings, formulas, fractions, other formats of the same list.
import ExcelJS from "exceljs";
import XLSX from "xlsx";
import { writer } from "./corpus.mjs";

const w = writer("sheetjs");
const rows = [["Rail", 2, 1100, 82, 22], ["Stile", 4, 760, 60, 22], ["Panel", 2, 640, 310, 12]];
const head = ["Part", "Qty", "Length (mm)", "Width (mm)", "Thickness (mm)", "Material"];
const table = [head, ...rows.map((r) => [...r, "white oak"])];

function book(sheets, type) {
  const made = XLSX.utils.book_new();
  for (const [name, data] of sheets) XLSX.utils.book_append_sheet(made, XLSX.utils.aoa_to_sheet(data), name);
  return XLSX.write(made, { type: "buffer", bookType: type });
}
w.file("list.xlsx", book([["Parts", table]], "xlsx"), rows);
w.file("list.ods", book([["Parts", table]], "ods"), rows);
w.file("list.csv", XLSX.utils.sheet_to_csv(XLSX.utils.aoa_to_sheet(table)), rows);
w.file("list.txt", Buffer.from("\ufeff" + XLSX.utils.sheet_to_csv(XLSX.utils.aoa_to_sheet(table), { FS: "\t" }), "utf16le"), rows, "", "tabs, UTF-16");
w.file("second.xlsx", book([["Cover", [["Wall cupboard"], ["drawn", "2026-10-01"]]], ["Hardware", [["Item", "Qty"], ["Hinge", 4]]], ["Parts", table]], "xlsx"), rows, "", "the list is on the third sheet");
const stapled = [["Pos.", "Benennung", "Anzahl", "Fertigmaß", "", "", "Holzart"], ["", "", "", "Dicke", "Breite", "Länge", ""], ...rows.map((r, k) => [k + 1, r[0], r[1], r[4], r[3], r[2], "Eiche"])];
w.file("zweizeilig.xlsx", book([["Stückliste", stapled]], "xlsx"), rows, "mm", "German, two rows of headings, thickness first");

const excel = new ExcelJS.Workbook();
const sheet = excel.addWorksheet("Cut list");
sheet.mergeCells("A1:F1");
sheet.getCell("A1").value = "Reading room door";
sheet.addRow([]);
sheet.addRow(["Component", "No.", "L", "W", "T", "Timber"]).font = { bold: true };
for (const r of rows) sheet.addRow([r[0], r[1], { formula: `${r[2] - 100}+100`, result: r[2] }, r[3], r[4], "ash"]);
sheet.addRow([]);
sheet.addRow(["Total", { formula: "SUM(B4:B6)", result: 8 }]);
w.file("title-total.xlsx", Buffer.from(await excel.xlsx.writeBuffer()), rows, "mm", "a title, formulas, a total below");
const rich = new ExcelJS.Workbook();
const second = rich.addWorksheet("List");
second.addRow(["Part", "Qty", "Size (T x W x L)", "Species"]);
for (const r of rows) second.addRow([{ richText: [{ text: r[0].slice(0, 2), font: { bold: true } }, { text: r[0].slice(2) }] }, r[1], `${r[4]} x ${r[3]} x ${r[2]} mm`, "ash"]);
w.file("size-cell.xlsx", Buffer.from(await rich.xlsx.writeBuffer()), rows, "", "three sizes in a cell, thickness first, rich text");
w.done();
