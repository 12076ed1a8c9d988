import type { Layout, Part } from "../../api/client";
import type { Rest } from "../../api/log";
import { money } from "../../money";
import { t } from "../../i18n/i18n";

/** A plan and what was to be freed of it, as it stood before the rest was planned again. */
export interface Stood {
  standing: Layout;
  freed: Rest["freed"];
}

/** Which boards every part lies on, and how often. */
function placed(layout: Layout): Map<string, Map<string, number>> {
  const found = new Map<string, Map<string, number>>();
  for (const b of layout.plan?.boards ?? [])
    for (const s of b.segments)
      for (const t of s.strips)
        for (const k of t.blanks)
          for (const layer of k.layers)
            for (const i of layer) {
              const at = found.get(i.part) ?? new Map<string, number>();
              at.set(b.board, (at.get(b.board) ?? 0) + 1);
              found.set(i.part, at);
            }
  return found;
}

/** What planning the rest again changed, a sentence each. */
export function compared(before: Stood, now: Layout, parts: Part[]): string[] {
  const name = (id: string) => parts.find((p) => p.id === id)?.name || id;
  const was = placed(before.standing);
  const is = placed(now);
  const said: string[] = [];
  for (const [part, boards] of is)
    for (const [board, n] of boards) {
      const more = n - (was.get(part)?.get(board) ?? 0);
      if (more > 0)
        said.push(
          t(
            "{part} now comes out of {board} | {n} × {part} now come out of {board}",
            { part: name(part), board },
            more,
          ),
        );
    }
  const left = now.plan?.unplaced ?? [];
  const short = new Map<string, number>();
  for (const u of left) short.set(u.part, (short.get(u.part) ?? 0) + 1);
  if (short.size)
    said.push(
      t("No wood for {parts}: Buy says what is short", {
        parts: [...short].map(([part, n]) => `${n} × ${name(part)}`).join(", "),
      }),
    );
  else said.push(t("There is wood for all of it: buy nothing"));
  const more = (now.cost ?? 0) - (before.standing.cost ?? 0);
  if (more > 0.005) said.push(t("{more} more of wood is cut than before", { more: money(more) }));
  return said;
}
