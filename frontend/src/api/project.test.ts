import { QueryClient } from "@tanstack/vue-query";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { aBoard, aPart, IN } from "../test/making";
import type { Project } from "./client";

const told = vi.hoisted(() => vi.fn());
vi.mock("element-plus", () => ({ ElMessage: told }));
vi.stubGlobal("window", { location: { origin: "http://shop" } });

interface Sent {
  url: string;
  body: { version: number; label?: string; put_parts?: { id: string }[] };
  answer: (response: Response) => void;
}
const sent: Sent[] = [];
vi.stubGlobal(
  "fetch",
  async (request: Request) =>
    new Promise<Response>((answer) => {
      void request.json().then((body: Sent["body"]) => sent.push({ url: request.url, body, answer }));
    }),
);

const { edit, projectKey, unsaved } = await import("./project");

function project(values: Partial<Project> = {}): Project {
  const shop = { method: "mill-wide", end_trim: 0, min_blank_length: 0, max_slope: 0 } as Project["shop"];
  return {
    pk: 1,
    name: "P",
    system: "in",
    version: 1,
    shop,
    parts: [aPart()],
    measures: [],
    boards: [aBoard()],
    undo: "",
    redo: "",
    rack: false,
    ...values,
  };
}
const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
const next = () =>
  vi.waitFor(() => {
    if (!sent.length) throw new Error("nothing sent");
    return sent.shift()!;
  });

let client: QueryClient;
let pk = 0;
beforeEach(() => {
  sent.length = 0;
  told.mockClear();
  client = new QueryClient();
  pk++;
  client.setQueryData(projectKey(pk), project({ pk }));
});
const shown = () => client.getQueryData<Project>(projectKey(pk))!;

describe("an edit", () => {
  it("is on the screen before it is saved", async () => {
    const saving = edit(client, pk, { label: "length", put_parts: [aPart({ length: 21 * IN })] });
    expect(shown().parts[0]!.length).toBe(21 * IN);
    expect(shown().undo).toBe("length");
    expect(unsaved.value).toBe(1);
    (await next()).answer(json(project({ pk, version: 2, parts: [aPart({ length: 21 * IN })] })));
    expect(await saving).toBe(true);
    expect(unsaved.value).toBe(0);
    expect(shown().version).toBe(2);
  });

  it("renames in place, adds at the end and removes", () => {
    void edit(client, pk, {
      label: "x",
      put_parts: [{ ...aPart({ id: "Z" }), was: "A" }, aPart({ id: "N" })],
    });
    expect(shown().parts.map((p) => p.id)).toEqual(["Z", "N"]);
    expect(shown().parts[0]).not.toHaveProperty("was");
    void edit(client, pk, { label: "y", remove_parts: ["Z"], remove_boards: ["B1"] });
    expect(shown().parts.map((p) => p.id)).toEqual(["N"]);
    expect(shown().boards).toEqual([]);
    return drain();
  });

  it("waits for the one before it and builds on its version", async () => {
    const first = edit(client, pk, { label: "one", put_parts: [aPart({ quantity: 3 })] });
    const second = edit(client, pk, { label: "two", put_parts: [aPart({ quantity: 4 })] });
    const one = await next();
    expect(sent).toHaveLength(0);
    expect(one.body.version).toBe(1);
    one.answer(json(project({ pk, version: 5, parts: [aPart({ quantity: 3 })] })));
    await first;
    expect(shown().parts[0]!.quantity).toBe(4); // the older answer does not undo the newer edit
    const two = await next();
    expect(two.body.version).toBe(5);
    two.answer(json(project({ pk, version: 6, parts: [aPart({ quantity: 4 })] })));
    await second;
    expect(shown().version).toBe(6);
  });

  it("that is refused is told with its place, and what is kept is asked for again", async () => {
    const asked = vi.spyOn(client, "invalidateQueries");
    const saving = edit(client, pk, { label: "bad", put_parts: [aPart({ length: 0 })] });
    (await next()).answer(json({ what: "expected more than nothing", where: "$.put_parts[0].length" }, 422));
    expect(await saving).toBe(false);
    expect(told.mock.calls[0]![0].message).toBe(
      "Not saved: expected more than nothing ($.put_parts[0].length)",
    );
    expect(asked).toHaveBeenCalledWith({ queryKey: projectKey(pk) });
    expect(unsaved.value).toBe(0);
  });

  it("marks what depends on it as old once it is saved", async () => {
    const asked = vi.spyOn(client, "invalidateQueries");
    const saving = edit(client, pk, { label: "one", put_parts: [aPart({ quantity: 3 })] });
    (await next()).answer(json(project({ pk, version: 2 })));
    await saving;
    for (const key of ["layout", "needs", "milling", "account"])
      expect(asked).toHaveBeenCalledWith({ queryKey: [key, pk] });
  });
});

/** Answer whatever is still under way, so that the next test begins with nothing to wait for. */
async function drain(): Promise<void> {
  while (unsaved.value > 0) {
    const { body, answer } = await next();
    answer(json(project({ pk, version: body.version + 1 })));
    await vi.waitFor(() => {
      if (unsaved.value > 0 && !sent.length) throw new Error("still saving");
    });
  }
}
