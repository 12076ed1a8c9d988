// @vitest-environment happy-dom
import { flushPromises, mount, type VueWrapper } from "@vue/test-utils";
import { describe, expect, it } from "vitest";
import { IN } from "../test/making";
import MeasureField from "./MeasureField.vue";

const field = (props = {}) =>
  mount(MeasureField, { props: { modelValue: 2.5 * IN, system: "in", label: "Width", ...props } });

/** What keys do; a change is told by the browser only when the field is left. */
async function type(wrapper: VueWrapper, text: string): Promise<void> {
  const input = wrapper.get<HTMLInputElement>("input");
  input.element.value = text;
  await input.trigger("input");
}

describe("typing into the measure field", () => {
  it("says what it understood, in the other system too, before it is kept", async () => {
    const wrapper = field();
    await type(wrapper, "3 1/8");
    expect(wrapper.get("[role=status]").text()).toBe("3 1/8 in = 79.4 mm");
    expect(wrapper.emitted("update:modelValue")).toBeUndefined();
  });

  it("keeps it once at Enter, and shows it in the project's notation", async () => {
    const wrapper = field({ system: "mm" });
    const input = wrapper.get("input");
    await type(wrapper, '3 1/8"');
    await input.trigger("keydown.enter");
    await input.trigger("blur");
    expect(wrapper.emitted("update:modelValue")?.[0]).toEqual([(25 / 8) * IN]);
    expect((input.element as HTMLInputElement).value).toBe("79.375");
  });

  it("keeps what cannot be read, says why, and gives nothing out", async () => {
    const wrapper = field();
    await type(wrapper, "3 1/7");
    await wrapper.get("input").trigger("blur");
    expect((wrapper.get("input").element as HTMLInputElement).value).toBe("3 1/7");
    expect(wrapper.get("input").attributes("aria-invalid")).toBe("true");
    expect(wrapper.get("[role=status]").text()).toContain("'3 1/7' has a fraction that is not in");
    expect(wrapper.emitted("update:modelValue")).toBeUndefined();
  });

  it("is as it was after Escape", async () => {
    const wrapper = field();
    await type(wrapper, "9");
    await wrapper.get("input").trigger("keydown.esc");
    expect((wrapper.get("input").element as HTMLInputElement).value).toBe("2 1/2");
    expect(wrapper.emitted("update:modelValue")).toBeUndefined();
  });

  it("works a formula out while it is typed and gives out its text", async () => {
    const wrapper = field({ formula: "", workOut: async () => ({ ticks: 4 * IN, why: "" }) });
    await type(wrapper, "=H / 2");
    await flushPromises();
    expect(wrapper.get("[role=status]").text()).toBe("= 4 in");
    await wrapper.get("input").trigger("keydown.enter");
    expect(wrapper.emitted("formula")).toEqual([["H / 2"]]);
    expect(wrapper.emitted("update:modelValue")).toBeUndefined();
  });
});
