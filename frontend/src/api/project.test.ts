import { QueryClient } from "@tanstack/vue-query";
import "fake-indexeddb/auto";
import { createStore, keys, set } from "idb-keyval";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { aBoard, aPart, IN } from "../test/making";
import type { Project } from "./client";

const told = vi.hoisted(() => vi.fn());
vi.mock("element-plus", () => ({ ElMessage: told }));
vi.stubGlobal("window", { location: { origin: "http://shop" }, addEventListener: vi.fn() });

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
      const body = request.method === "GET" ? Promise.resolve({ version: 0 }) : request.json();
      void body.then((found: Sent["body"]) => sent.push({ url: request.url, body: found, answer }));
    }),
);

const { conflict, edit, projectKey, resume, undoIn, unsaved, waiting } = await import("./project");
const { letGo, refusedEdits } = await import("./refusedEdits");

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

  it("made the moment the one before is saved is sent as well", async () => {
    const both = (async () => {
      await edit(client, pk, { label: "one", put_parts: [aPart({ quantity: 3 })] });
      return edit(client, pk, { label: "two", put_parts: [aPart({ quantity: 4 })] });
    })();
    (await next()).answer(json(project({ pk, version: 2, parts: [aPart({ quantity: 3 })] })));
    const two = await next();
    expect(two.body).toMatchObject({ label: "two", version: 2 });
    two.answer(json(project({ pk, version: 3, parts: [aPart({ quantity: 4 })] })));
    expect(await both).toBe(true);
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
    // What was typed is not lost: it waits apart, with the reason.
    const [apart] = refusedEdits.value.filter((e) => e.pk === pk);
    expect(apart).toMatchObject({
      change: { label: "bad" },
      why: expect.stringContaining("more than nothing"),
    });
    expect(apart!.change.put_parts![0]!.length).toBe(0);
    letGo(apart!.id);
    expect(refusedEdits.value.filter((e) => e.pk === pk)).toEqual([]);
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

describe("an edit the server is out of reach for", () => {
  const away = () => new Response("", { status: 503 });

  it("is held, stays on the screen and counts as kept; it is sent when the server answers", async () => {
    vi.useFakeTimers();
    try {
      const saving = edit(client, pk, { label: "length", put_parts: [aPart({ length: 21 * IN })] });
      (await next()).answer(away());
      expect(await saving).toBe(true);
      expect([unsaved.value, waiting.value]).toEqual([1, true]);
      expect(shown().parts[0]!.length).toBe(21 * IN);
      expect(told).not.toHaveBeenCalled();
      await vi.advanceTimersByTimeAsync(5000);
      const again = await next();
      expect(again.body).toMatchObject({ version: 1, label: "length" });
      again.answer(json(project({ pk, version: 2, parts: [aPart({ length: 21 * IN })] })));
      await vi.waitFor(() => expect(unsaved.value).toBe(0));
      expect(waiting.value).toBe(false);
    } finally {
      vi.useRealTimers();
    }
  });

  it("can be taken back before it is sent", async () => {
    const saving = edit(client, pk, { label: "length", put_parts: [aPart({ length: 21 * IN })] });
    (await next()).answer(away());
    await saving;
    expect(await undoIn(client, pk)).toBe(true);
    expect(unsaved.value).toBe(0);
    expect(shown().parts[0]!.length).toBe(aPart().length); // though nobody could be asked
  });
});

describe("an edit that meets somebody else's", () => {
  const clash = () => json({ what: "somebody else has edited this", version: 7 }, 409);
  const mine = { label: "mine", put_parts: [aPart({ length: 21 * IN })] };

  it("is sent on top where both touch different things", async () => {
    const saving = edit(client, pk, mine);
    (await next()).answer(clash());
    const theirs = project({ pk, version: 7, boards: [], parts: [aPart()] });
    (await next()).answer(json(theirs));
    const again = await next();
    expect(again.body.version).toBe(7);
    again.answer(json({ ...theirs, version: 8, parts: mine.put_parts }));
    expect(await saving).toBe(true);
    expect([shown().version, shown().boards.length, shown().parts[0]!.length]).toEqual([8, 0, 21 * IN]);
  });

  it("is merged where both have changed other fields of one part", async () => {
    const saving = edit(client, pk, mine);
    (await next()).answer(clash());
    (await next()).answer(json(project({ pk, version: 7, parts: [aPart({ quantity: 9 })] })));
    const again = await next();
    expect(again.body.put_parts).toMatchObject([{ quantity: 9, length: 21 * IN }]);
    again.answer(json(project({ pk, version: 8, parts: [aPart({ quantity: 9, length: 21 * IN })] })));
    expect(await saving).toBe(true);
    expect(conflict.value).toBeUndefined();
  });

  it("asks where both have changed the same, and sends mine when it is chosen", async () => {
    const saving = edit(client, pk, mine);
    (await next()).answer(clash());
    (await next()).answer(json(project({ pk, version: 7, parts: [aPart({ length: 19 * IN })] })));
    await vi.waitFor(() => expect(conflict.value?.clashes).toHaveLength(1));
    expect(conflict.value!.clashes[0]).toMatchObject({
      what: "part",
      theirs: { length: 19 * IN },
      mine: { length: 21 * IN },
    });
    conflict.value!.choose(true);
    const again = await next();
    expect(again.body.version).toBe(7);
    again.answer(json(project({ pk, version: 8, parts: mine.put_parts })));
    expect(await saving).toBe(true);
  });

  it("is given up for theirs when that is chosen", async () => {
    const saving = edit(client, pk, mine);
    (await next()).answer(clash());
    (await next()).answer(json(project({ pk, version: 7, parts: [aPart({ length: 19 * IN })] })));
    await vi.waitFor(() => expect(conflict.value).toBeTruthy());
    conflict.value!.choose(false);
    expect(await saving).toBe(false);
    expect([shown().parts[0]!.length, unsaved.value]).toEqual([19 * IN, 0]);
  });

  it("is asked about one after the other, where two projects are met at once", async () => {
    const first = edit(client, pk, mine);
    (await next()).answer(clash());
    (await next()).answer(json(project({ pk, version: 7, parts: [aPart({ length: 19 * IN })] })));
    await vi.waitFor(() => expect(conflict.value).toBeTruthy());
    const other = ++pk;
    client.setQueryData(projectKey(other), project({ pk: other }));
    const second = edit(client, other, { ...mine, label: "of the other" });
    (await next()).answer(clash());
    (await next()).answer(json(project({ pk: other, version: 7, parts: [aPart({ length: 18 * IN })] })));
    await new Promise((later) => setTimeout(later, 50));
    expect(conflict.value!.label).toBe("mine");
    conflict.value!.choose(false);
    expect(await first).toBe(false);
    await vi.waitFor(() => expect(conflict.value?.label).toBe("of the other"));
    conflict.value!.choose(false);
    expect(await second).toBe(false);
  });

  it("is not sent twice where only its answer was lost", async () => {
    const saving = edit(client, pk, mine);
    (await next()).answer(clash());
    (await next()).answer(json(project({ pk, version: 7, parts: mine.put_parts })));
    expect(await saving).toBe(true);
    expect(sent).toHaveLength(0);
  });
});

describe("what a tab that is gone has left", () => {
  it("is taken up in its order", async () => {
    const store = createStore("vivid-plank", "edits");
    const left = { tab: "gone", pk, before: [] };
    await set("000000000000002.b", { ...left, id: "000000000000002.b", change: { label: "two" } }, store);
    await set("000000000000001.a", { ...left, id: "000000000000001.a", change: { label: "one" } }, store);
    await resume(client);
    expect(unsaved.value).toBe(2);
    for (const [label, at] of [
      ["one", 2],
      ["two", 3],
    ] as const) {
      const { body, answer } = await next();
      expect(body.label).toBe(label);
      answer(json(project({ pk, version: at })));
    }
    await vi.waitFor(() => expect(unsaved.value).toBe(0));
    await vi.waitFor(async () => expect(await keys(store)).toEqual([]));
  });
});
