/** What is edited in the rows of the grid: what changes in one chosen row changes in all of them. */
import { ElMessage } from "element-plus";
import { computed, ref, watch, type ComputedRef } from "vue";
import { api, type Part } from "../../api/client";
import { useProject } from "../../api/project";
import { isMetric, TICKS_PER_INCH, TICKS_PER_MM } from "../../measure";
import { without } from "./grid";
import { t } from "../../i18n/i18n";

/** Fields that belong to one part alone. */
const ALONE = new Set(["id", "name", "outline", "source"]);

export function useEditing(rows: ComputedRef<Part[]>) {
  const { pk, project, edit } = useProject();
  const taken = computed(() => new Set(project.value!.parts.map((p) => p.id)));
  const chosen = ref(new Set<string>());
  const anchor = ref("");
  watch(
    () => project.value!.parts,
    (parts) => {
      const left = new Set(parts.map((p) => p.id));
      if ([...chosen.value].some((id) => !left.has(id)))
        chosen.value = new Set([...chosen.value].filter((id) => left.has(id)));
    },
  );
  function choose(event: MouseEvent | KeyboardEvent, id: string): void {
    const now = new Set(chosen.value);
    const ids = rows.value.map((p) => p.id);
    if (event.shiftKey && anchor.value) {
      const [from, to] = [ids.indexOf(anchor.value), ids.indexOf(id)].sort((a, b) => a - b) as [
        number,
        number,
      ];
      for (const between of ids.slice(from, to + 1)) now.add(between);
    } else if (!now.delete(id)) now.add(id);
    anchor.value = id;
    chosen.value = now;
  }
  function change(part: Part, what: string, values: Partial<Part>): void {
    const id = values.id ?? part.id;
    if (values.id !== undefined && (taken.value.has(id) || !id.trim())) {
      ElMessage({
        type: "error",
        message: id.trim()
          ? t("The mark '{id}' is taken; every mark once", { id })
          : t("A part needs a mark"),
      });
      return;
    }
    const names = Object.keys(values);
    const many = chosen.value.has(part.id) && chosen.value.size > 1 && !names.some((n) => ALONE.has(n));
    const parts = many ? project.value!.parts.filter((p) => chosen.value.has(p.id)) : [part];
    const puts = parts.map((p) => names.reduce((q, n) => without(q, n), { ...p, ...values, was: p.id }));
    void edit({
      label: many
        ? t("{what} of {n} parts", { what, n: parts.length })
        : t("{what} of {name}", { what, name: part.id }),
      put_parts: puts,
    });
  }
  function formula(part: Part, field: string, text: string): void {
    const formulas = { ...part.formulas, [field]: text };
    if (!text) delete formulas[field];
    void edit({
      label: t("formula for the {field} of {id}", { field, id: part.id }),
      put_parts: [{ ...part, formulas, was: part.id }],
    });
  }
  async function workOut(text: string): Promise<{ ticks: number | null; why: string }> {
    return (
      await api.POST("/api/projects/{project}/formula", {
        params: { path: { project: pk.value } },
        body: { text, kind: "length" },
      })
    ).data!;
  }
  function count(part: Part, event: Event): void {
    const input = event.target as HTMLInputElement;
    const text = input.value.trim();
    if (text.startsWith("=")) {
      formula(part, "quantity", text.slice(1).trim());
      return;
    }
    const n = Number(text.replace(/\s*[x×]\s*/i, ""));
    if (Number.isInteger(n) && n > 0 && n < 100000) change(part, "count", { quantity: n });
    else {
      ElMessage({
        type: "error",
        message: t("'{input}' is no count; a whole number of 1 or more", { input: input.value }),
      });
      input.value = String(part.quantity);
    }
  }
  function panel(part: Part, on: boolean): void {
    const usual = isMetric(project.value!.system)
      ? { stave_min: 60 * TICKS_PER_MM, stave_max: 150 * TICKS_PER_MM }
      : { stave_min: 2.5 * TICKS_PER_INCH, stave_max: 6 * TICKS_PER_INCH };
    change(part, "panel", { panel: on ? usual : null, run: on ? "" : part.run });
  }
  function remove(part: Part): void {
    const many = chosen.value.has(part.id) && chosen.value.size > 1;
    const ids = many ? [...chosen.value] : [part.id];
    void edit({
      label: many ? t("removal of {n} parts", ids.length) : t("removal of {name}", { name: part.id }),
      remove_parts: ids,
    });
    chosen.value = new Set();
  }

  return { chosen, choose, change, formula, workOut, count, panel, remove };
}
