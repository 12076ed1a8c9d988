import { createMemoryHistory, createRouter } from "vue-router";
import { createSSRApp, h } from "vue";
import { renderToString } from "vue/server-renderer";
import { describe, expect, it } from "vitest";
import { i18n } from "../i18n/i18n";
import { STAGES } from "../stages/stages";
import TapeNav from "./TapeNav.vue";

async function tape(reached: number, current: string): Promise<string> {
  const nowhere = { render: () => null };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: "/", component: nowhere },
      ...STAGES.map((s) => ({ path: `/project/:project/${s.name}`, name: s.name, component: nowhere })),
    ],
  });
  const app = createSSRApp({
    render: () => h(TapeNav, { pk: 7, name: "Settle", reached, current: current as "list" }),
  });
  app.use(router).use(i18n);
  await router.push(`/project/7/${current}`);
  return renderToString(app);
}

describe("the tape", () => {
  it("has the stages in the order of the work", async () => {
    const html = await tape(6, "list");
    const at = STAGES.map((s) => html.indexOf(`>${s.word}<`));
    expect(at.every((x) => x > 0)).toBe(true);
    expect([...at].sort((a, b) => a - b)).toEqual(at);
    for (const s of STAGES) expect(html).toContain(`/project/7/${s.name}`);
  });

  it("is pulled out as far as the project has come", async () => {
    expect(await tape(6, "list")).toContain("width:100%");
    expect((await tape(6, "list")).match(/class="beyond/g)).toBeNull();
    const begun = await tape(1, "list");
    expect(begun.match(/beyond/g)).toHaveLength(5);
    expect(begun).toMatch(/width:28\.57/);
  });

  it("says which stage one is at", async () => {
    const html = await tape(6, "mill");
    expect(html.match(/aria-current="page"/g)).toHaveLength(1);
    expect(html).toMatch(
      /href="\/project\/7\/mill"[^>]*aria-current="page"|aria-current="page"[^>]*href="\/project\/7\/mill"/,
    );
  });
});
