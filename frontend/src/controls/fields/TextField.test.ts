// @vitest-environment happy-dom
import { flushPromises, mount } from "@vue/test-utils";
import { describe, expect, it } from "vitest";
import TextField from "./TextField.vue";

describe("a line of text", () => {
  it("is kept once, as typed, when it is left", async () => {
    const field = mount(TextField, { props: { modelValue: "The barn" } });
    const input = field.get("input");
    for (const typed of ["The mill", "The mill, up the hill "]) {
      input.element.value = typed;
      await input.trigger("input");
      await flushPromises();
      expect(input.element.value).toBe(typed);
    }
    expect(field.emitted("update:modelValue")).toBeUndefined();
    await input.trigger("change");
    expect(field.emitted("update:modelValue")).toEqual([["The mill, up the hill"]]);
  });

  it("shows what others have written", async () => {
    const field = mount(TextField, { props: { modelValue: "a" } });
    await field.setProps({ modelValue: "b" });
    expect(field.get("input").element.value).toBe("b");
  });
});
