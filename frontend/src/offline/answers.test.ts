import { describe, expect, it } from "vitest";
import { KEPT, keptAs, cacheFirst, MOST_FILES, networkFirst, wayOf, type Kept } from "./strategies";

const HERE = "http://here";
const at = (path: string) => new URL(path, HERE);
const way = (path: string, method = "GET", navigates = false) => wayOf(method, at(path), HERE, navigates);

function keeping(start: Record<string, string> = {}): Kept & { held: Map<string, string> } {
  const held = new Map(Object.entries(start));
  return {
    held,
    match: async (name) => (held.has(name) ? new Response(held.get(name)) : undefined),
    put: async (name, response) => void held.set(name, await response.text()),
    keys: async () => [...held.keys()].map((name) => ({ url: HERE + name })),
    delete: async (url) => held.delete(url.slice(HERE.length)),
  };
}
const gone = async (): Promise<Response> => {
  throw new TypeError("out of reach");
};

describe("what is kept", () => {
  it("is what pages read to show what there is, and no more", () => {
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
      expect(way(path)).toBe("answer");
    for (const path of [
      "/api/projects/3/boards",
      "/api/layouts/12/routes.pdf",
      "/api/projects/3/events",
      "/icon.svg",
    ])
      expect(way(path)).toBe("none");
  });
  it("is never a change, nor anybody else's", () => {
    expect(way("/api/projects/3", "PUT")).toBe("none");
    expect(wayOf("GET", new URL("http://elsewhere/assets/a.js"), HERE, false)).toBe("none");
  });
  it("is one page for all addresses, and files by their names", () => {
    expect(keptAs(way("/projects/3/machine", "GET", true), at("/projects/3/machine"))).toBe("/");
    expect(way("/assets/index-Ab12.js")).toBe("file");
    expect(keptAs("file", at("/assets/index-Ab12.js"))).toBe("/assets/index-Ab12.js");
  });
});

describe("how it is answered", () => {
  it("by the server, and kept as it was last", async () => {
    const kept = keeping({ "/x": "old" });
    const fresh = await networkFirst("/x", kept, async () => new Response("new"));
    expect([await fresh.text(), fresh.headers.get(KEPT)]).toEqual(["new", null]);
    expect(kept.held.get("/x")).toBe("new");
  });
  it("by what was kept where the server is out of reach", async () => {
    const old = await networkFirst("/x", keeping({ "/x": "old" }), gone);
    expect([await old.text(), old.headers.get(KEPT)]).toEqual(["old", "1"]);
    await expect(networkFirst("/y", keeping(), gone)).rejects.toThrow("out of reach");
  });
  it("does not keep a refusal", async () => {
    const kept = keeping({ "/x": "old" });
    expect((await networkFirst("/x", kept, async () => new Response("no", { status: 404 }))).status).toBe(
      404,
    );
    expect(kept.held.get("/x")).toBe("old");
  });
  it("of the files of many versions the oldest go, and nothing else", async () => {
    const files = Array.from({ length: MOST_FILES }, (_, k) => `/assets/${k}.js`);
    const kept = keeping({
      "/": "page",
      "/api/projects/3": "piece",
      ...Object.fromEntries(files.map((f) => [f, f])),
    });
    await cacheFirst("/assets/new.js", kept, async () => new Response("new"));
    expect(
      ["/", "/api/projects/3", "/assets/new.js", "/assets/1.js"].every((name) => kept.held.has(name)),
    ).toBe(true);
    expect(kept.held.has("/assets/0.js")).toBe(false);
  });
  it("files are not asked for twice", async () => {
    expect(await (await cacheFirst("/f", keeping({ "/f": "bytes" }), gone)).text()).toBe("bytes");
    const kept = keeping();
    expect(await (await cacheFirst("/f", kept, async () => new Response("fetched"))).text()).toBe("fetched");
    expect(kept.held.get("/f")).toBe("fetched");
  });
});
