/** Hands on the keyboard of the grid: from cell to cell, filled down, a block pasted over cells. */
import { ElMessage } from "element-plus";
import { nextTick, type ComputedRef, type Ref } from "vue";
import type { Part } from "../../api/client";
import { useProject } from "../../api/project";
import { pastedBlock, without, type Column } from "./grid";
import { t } from "../../i18n/i18n";

export function useCells(rows: ComputedRef<Part[]>, chosen: Ref<Set<string>>) {
  const { project, edit } = useProject();
  function place(target: EventTarget | null): { part: Part; at: number; column: Column } | null {
    const field = target as HTMLElement | null;
    const id = field?.closest<HTMLElement>("tr[data-part]")?.dataset.part;
    const column = field?.closest<HTMLElement>("td[data-column]")?.dataset.column as Column | undefined;
    const at = rows.value.findIndex((p) => p.id === id);
    return column && at >= 0 ? { part: rows.value[at]!, at, column } : null;
  }
  async function key(event: KeyboardEvent): Promise<void> {
    const field = event.target as HTMLElement;
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "d") {
      event.preventDefault();
      await fillDown(field);
      return;
    }
    if (!["Enter", "ArrowDown", "ArrowUp"].includes(event.key)) return;
    if (field.tagName === "SELECT" && event.key !== "Enter") return;
    if (field.tagName === "BUTTON") return;
    const row = field.closest("tr");
    if (!row) return;
    const column = field.closest("td")?.cellIndex ?? -1; // a new row has fewer fields in the same columns
    let next = (
      event.key === "ArrowUp" ? row.previousElementSibling : row.nextElementSibling
    ) as HTMLElement | null;
    while (next?.classList.contains("group"))
      next = (
        event.key === "ArrowUp" ? next.previousElementSibling : next.nextElementSibling
      ) as HTMLElement | null;
    const target = next?.children[column]?.querySelector<HTMLElement>("input,select");
    if (!target) return;
    event.preventDefault();
    target.focus();
  }
  /** The value of the cell one is in goes to the chosen rows below it, or to the next row. */
  async function fillDown(field: HTMLElement): Promise<void> {
    const from = place(field);
    if (!from || from.column === "id") return;
    field.blur();
    await nextTick();
    const source = project.value!.parts.find((p) => p.id === from.part.id)!;
    const below = rows.value.slice(from.at + 1);
    const targets = chosen.value.size > 1 ? below.filter((p) => chosen.value.has(p.id)) : below.slice(0, 1);
    if (!targets.length) return;
    const name = from.column;
    const text = source.formulas[name];
    const puts = targets.map((p) => ({
      ...without(p, name),
      [name]: source[name],
      ...(text ? { formulas: { ...p.formulas, [name]: text } } : {}),
      was: p.id,
    }));
    void edit({ label: t("fill down of {name} to {puts}", { name, puts: puts.length }), put_parts: puts });
    await nextTick();
    document
      .querySelector<HTMLElement>(
        `tr[data-part="${CSS.escape(targets.at(-1)!.id)}"] td[data-column="${name}"] :is(input,select)`,
      )
      ?.focus();
  }
  /** A block from a spreadsheet over the cells from the one that has the focus; false where none has. */
  function pasteBlock(text: string): boolean {
    const from = place(document.activeElement);
    if (!from) return false;
    const { puts, over, wrong } = pastedBlock(rows.value, from.at, from.column, text, project.value!.system);
    if (wrong.length) {
      ElMessage({
        type: "error",
        message: t("Nothing was pasted. {wrong}", { wrong: wrong.slice(0, 3).join("; ") }),
        duration: 8000,
        showClose: true,
      });
      return true;
    }
    (document.activeElement as HTMLElement).blur();
    void edit({ label: t("pasted cells in {puts} parts", { puts: puts.length }), put_parts: puts });
    if (over)
      ElMessage({ message: t("{over} rows of the block lie below the list and were left", { over }) });
    return true;
  }

  return { key, pasteBlock };
}
