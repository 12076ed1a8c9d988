/** Steps as they stand with taps that the server does not know of yet. */
import { marked } from "../stages/mill/run";
import type { Schemas } from "./client";
import type { Tap } from "./outbox";

export function withOutbox(milling: Schemas["MillingBody"], taps: Tap[]): Schemas["MillingBody"] {
  const mine = taps.filter((t) => t.layout === milling.layout);
  const all = mine.reduce(
    (steps, t) => marked(steps, t.key, t.done),
    milling.routes.flatMap((r) => r.steps),
  );
  const by = new Map(all.map((s) => [s.key, s]));
  return {
    ...milling,
    routes: milling.routes.map((r) => ({ ...r, steps: r.steps.map((s) => by.get(s.key)!) })),
  };
}
