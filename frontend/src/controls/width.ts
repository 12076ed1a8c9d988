import { useElementSize } from "@vueuse/core";
import { computed, type Ref } from "vue";

/** How wide an element is inside, in pixels, as the window changes; `begin` until it is there. */
export function useWidth(element: Ref<HTMLElement | undefined>, begin: number): Ref<number> {
  const { width } = useElementSize(element, { width: begin, height: 0 });
  return computed(() => width.value || begin);
}
