import { onBeforeUnmount, ref, watch, type Ref } from "vue";

/** How wide an element is, in pixels, as the window changes; `begin` until it is there. */
export function useWidth(element: Ref<HTMLElement | undefined>, begin: number): Ref<number> {
  const width = ref(begin);
  let watcher: ResizeObserver | undefined;
  watch(element, (now) => {
    watcher?.disconnect();
    if (!now) return;
    watcher = new ResizeObserver(() => (width.value = now.clientWidth));
    watcher.observe(now);
    width.value = now.clientWidth;
  });
  onBeforeUnmount(() => watcher?.disconnect());
  return width;
}
