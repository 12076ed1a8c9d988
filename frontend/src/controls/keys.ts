/** Keys of the page: when a press belongs to it, and whether single letters are keys at all. */
import { ref } from "vue";

const PLACE = "single keys off";
/** Single keys can be switched off by who types with them by mistake, or speaks (WCAG 2.1.4). */
export const singleKeys = ref(read());

function read(): boolean {
  try {
    return localStorage.getItem(PLACE) === null;
  } catch {
    return true;
  }
}

export function setSingleKeys(on: boolean): void {
  singleKeys.value = on;
  try {
    if (on) localStorage.removeItem(PLACE);
    else localStorage.setItem(PLACE, "1");
  } catch {
    // Without a store it holds as long as the page is open.
  }
}

/** Whether a key press is for what has the focus, or for a sheet that is open, and not for the page. */
export function inField(event: KeyboardEvent): boolean {
  const at = event.target as HTMLElement | null;
  if (at && (at.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(at.tagName))) return true;
  if (at?.closest?.("[role=dialog], [role=listbox], [role=menu]")) return true;
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
  if (plain && event.key.length === 1 && event.key !== " ") return !singleKeys.value;
  return event.key === " " && !!at?.closest?.("button, a, summary, [role=button], [role=switch], [role=tab]");
}
