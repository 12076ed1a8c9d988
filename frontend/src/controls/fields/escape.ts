/**
 * Esc in a field with a list: it closes the list where one is open, else it is the sheet's. The
 * library's field keeps every Esc to itself.
 */
import { ref } from "vue";

export function useEscape() {
  const expanded = ref(false);
  function escape(event: KeyboardEvent): void {
    if (event.key !== "Escape" || expanded.value) return;
    event.stopPropagation();
    (event.currentTarget as HTMLElement).parentElement?.dispatchEvent(
      new KeyboardEvent("keydown", { key: "Escape", code: "Escape", bubbles: true, cancelable: true }),
    );
  }
  return { expanded, escape };
}
