// @vitest-environment happy-dom
import { flushPromises, mount } from "@vue/test-utils";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { ref } from "vue";
import type { Schemas } from "../../api/client";
import { aStep, IN } from "../../test/making";
import { dateOf } from "./day";
import MachinePage from "./MachinePage.vue";

const mark = vi.fn();
const steps = [
  aStep("O1.1/edge", {
    do: "Joint the edge",
    machine: "jointer",
    dimension: "straight",
    passes: [IN / 16, IN / 16],
    turns: ["", ""],
    ready: true,
  }),
  aStep("O1.1/length", { do: "Crosscut", machine: "crosscut saw", dimension: "length", ready: true }),
];
const days = ref<Pick<Schemas["DaysBody"], "begins" | "resting" | "setups">>();
const milling = () => ({
  layout: 7,
  stale: false,
  system: "in",
  routes: [{ board: "O1", steps }],
  cautions: { jointer: ["Read the machine's own manual."] },
});
vi.mock("../../api/milling", () => ({
  useMilling: () => ({ data: ref(milling()), error: ref(null), mark }),
  useDays: () => ({ days }),
  useSettings: () => ({ changed: vi.fn() }),
}));
vi.mock("../../api/project", () => ({
  useProject: () => ({ pk: ref(1), project: ref({ name: "Settle", shop: {} }) }),
}));
vi.mock("../../api/log", () => ({
  usePieces: () => ({ data: ref([]) }),
  useRest: () => ({ data: ref(undefined) }),
  useHappenings: () => ({ tell: {}, replan: { isPending: ref(false) } }),
}));
vi.mock("../../api/workshop", () => ({ useProjectWorkshop: () => ({ workshop: ref(undefined) }) }));
vi.mock("../../api/layout", () => ({ useLayout: () => ({ data: ref(undefined) }) }));

const page = () => mount(MachinePage, { global: { stubs: { RouterLink: true } }, attachTo: document.body });

describe("the machine page", () => {
  beforeEach(() => {
    localStorage.clear();
    mark.mockClear();
  });

  it("shows the cautions before a machine's first step of the day, and once", async () => {
    const first = page();
    expect(first.text()).toContain("Read the machine's own manual.");
    await first.get("footer .lead").trigger("click");
    expect(first.get("h1").text()).toBe("Joint the edge");
    first.unmount();
    const second = page();
    expect(second.text()).not.toContain("Read the machine's own manual.");
    second.unmount();
  });

  it("says of a board that has not rested yet until when it rests, and nothing of one that has", async () => {
    const resting = [{ board: "O1", percent: 12, equilibrium: 8, until: 40 }];
    const begins = (daysAgo: number) => dateOf(new Date(Date.now() - daysAgo * 86_400_000));
    const wrapper = page();
    await wrapper.get("footer .lead").trigger("click");
    expect(wrapper.text()).not.toContain("rests on stickers");
    days.value = { begins: begins(1), resting, setups: [] };
    await flushPromises();
    expect(wrapper.get(".step .note").text()).toContain("O1 was read at 12.0 %");
    days.value = { begins: begins(45), resting, setups: [] };
    await flushPromises();
    expect(wrapper.find(".step .note").exists()).toBe(false);
    days.value = undefined;
    wrapper.unmount();
  });

  it("counts passes by the space bar and goes on when the last is taken", async () => {
    const wrapper = page();
    const space = () => {
      window.dispatchEvent(new KeyboardEvent("keydown", { code: "Space" }));
      return flushPromises();
    };
    await space(); // the cautions
    expect(wrapper.get(".count").text()).toContain("2");
    await space();
    expect(wrapper.get(".count").text()).toContain("1");
    expect(mark).not.toHaveBeenCalled();
    await space();
    expect(mark).toHaveBeenCalledWith("O1.1/edge", true, expect.objectContaining({ reading: null }));
    expect(wrapper.get("h1").text()).toBe("Crosscut");
    wrapper.unmount();
  });

  it("keeps the count over another piece and a reload, and takes a tap back", async () => {
    let wrapper = page();
    const press = async (key: Partial<KeyboardEventInit>) => {
      window.dispatchEvent(new KeyboardEvent("keydown", key));
      await flushPromises();
    };
    await press({ code: "Space" }); // the cautions
    await press({ code: "Space" });
    await press({ key: "ArrowRight" });
    await press({ key: "ArrowLeft" });
    expect(wrapper.get(".count").text()).toContain("1");
    wrapper.unmount();
    wrapper = page();
    expect(wrapper.get(".count").text()).toContain("1");
    const button = (text: string) => wrapper.findAll("button").find((b) => b.text() === text)!;
    await button("Take the last tap back").trigger("click");
    expect(wrapper.get(".count").text()).toContain("2");
    await button("One pass more").trigger("click");
    expect(wrapper.get(".count").text()).toContain("3");
    await press({ code: "Space" });
    await button("Clean already").trigger("click");
    expect(mark).toHaveBeenCalledWith("O1.1/edge", true, expect.objectContaining({ passes: 1 }));
    wrapper.unmount();
  });

  it("goes back and forth by the arrows without marking anything", async () => {
    const wrapper = page();
    window.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight" }));
    await flushPromises();
    expect(wrapper.text()).toContain("2 of 2");
    window.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowLeft" }));
    await flushPromises();
    expect(wrapper.text()).toContain("1 of 2");
    expect(mark).not.toHaveBeenCalled();
    wrapper.unmount();
  });
});
