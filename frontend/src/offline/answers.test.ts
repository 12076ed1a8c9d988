import { expect, it } from "vitest";
import { isAnswer, KEPT, labelled } from "./answers";

it("keeps what pages read to show what there is, and no more", () => {
  for (const path of [
    "/api/projects/3",
    "/api/projects/3/milling",
    "/api/projects/3/milling-settings",
    "/api/projects/3/layout",
    "/api/layouts/12/days",
    "/api/layouts/12/chalk",
    "/api/projects/3/needs",
    "/api/projects",
    "/api/stock",
  ])
    expect(isAnswer(path), path).toBe(true);
  for (const path of [
    "/api/projects/3/boards",
    "/api/layouts/12/routes.pdf",
    "/api/projects/3/events",
    "/api/health",
    "/icon.svg",
  ])
    expect(isAnswer(path), path).toBe(false);
});

it("says of an answer that it was kept, and leaves the rest of it", async () => {
  const told = labelled(new Response("old", { headers: { "content-type": "text/plain" } }));
  expect([await told.text(), told.headers.get(KEPT), told.headers.get("content-type")]).toEqual([
    "old",
    "1",
    "text/plain",
  ]);
});
