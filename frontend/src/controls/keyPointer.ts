/**
 * A place pointed at by keys, for drawings that are otherwise only tapped or dragged on (WCAG 2.1.1). While the drawing
 * has the focus, arrow keys move a cross over it (with Shift by single pixels), Enter or Space does what a tap there
 * does. Where something is drawn from corner to corner Enter puts the first corner down and the next Enter the other;
 * Esc gives it up.
 */
import { useEventListener } from "@vueuse/core";
import { onScopeDispose, watch, type Ref } from "vue";

/** What Enter does: a tap, or one end of a drag; nothing where the drawing takes no pointer now. */
export type Pointing = "tap" | "drag" | "";
/** Pixels for a key. */
const STEP = 10;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export function useKeyPointer(drawing: Ref<HTMLElement | SVGElement | undefined>, pointing: () => Pointing) {
  /** From the drawing's left top corner, in pixels. */
  let at: { x: number; y: number } | undefined;
  let held: Element | undefined;
  /** Where a drag began. */
  let began: { x: number; y: number } | undefined;
  /** The cross, and what lies between it and where a drag began; made when they are first shown. */
  let cross: HTMLElement | undefined;
  let area: HTMLElement | undefined;
  function made(look: string): HTMLElement {
    const mark = document.createElement("div");
    mark.className = look;
    mark.setAttribute("aria-hidden", "true");
    return mark;
  }

  const client = () => {
    const box = drawing.value!.getBoundingClientRect();
    return { clientX: box.left + at!.x, clientY: box.top + at!.y };
  };
  function send(type: string, target: Element): void {
    const values = { ...client(), bubbles: true, cancelable: true, button: 0, buttons: 1 };
    target.dispatchEvent(
      type === "click"
        ? new MouseEvent(type, values)
        : new PointerEvent(type, { ...values, pointerType: "mouse", isPrimary: true }),
    );
  }
  function under(): Element {
    const { clientX, clientY } = client();
    const found = document.elementFromPoint(clientX, clientY);
    return found && drawing.value!.contains(found) ? found : drawing.value!;
  }
  function show(): void {
    const { clientX, clientY } = client();
    cross ??= made("key-cross");
    cross.style.transform = `translate(${clientX}px, ${clientY}px)`;
    // In a dialog the cross must lie over it: the top layer is that of the drawing's own frame.
    const frame = drawing.value!.closest("dialog, .el-overlay") ?? document.body;
    frame.append(cross);
    if (!began) return;
    area ??= made("key-area");
    frame.append(area);
    const [left, top] = [Math.min(began.x, at!.x), Math.min(began.y, at!.y)];
    area.style.transform = `translate(${clientX - at!.x + left}px, ${clientY - at!.y + top}px)`;
    area.style.width = `${Math.abs(at!.x - began.x)}px`;
    area.style.height = `${Math.abs(at!.y - began.y)}px`;
  }
  function letGo(): void {
    held = began = undefined;
    area?.remove();
    cross?.classList.remove("held");
  }
  function away(): void {
    if (held) send("pointercancel", held);
    letGo();
    at = undefined;
    cross?.remove();
  }

  function pressed(event: KeyboardEvent): void {
    const arrow = ARROWS[event.key];
    const kind = pointing();
    if (!kind || event.ctrlKey || event.metaKey || event.altKey || event.target !== drawing.value) return;
    const box = drawing.value!.getBoundingClientRect();
    if (arrow) {
      event.preventDefault();
      event.stopPropagation();
      if (!at) at = { x: box.width / 2, y: box.height / 2 };
      else {
        const step = event.shiftKey ? 1 : STEP;
        at.x = Math.min(box.width - 1, Math.max(1, at.x + arrow[0] * step));
        at.y = Math.min(box.height - 1, Math.max(1, at.y + arrow[1] * step));
      }
      show();
      send("pointermove", held ?? drawing.value!);
    } else if ((event.key === "Enter" || event.key === " ") && at) {
      event.preventDefault();
      event.stopPropagation();
      if (kind === "drag" && !held) {
        held = drawing.value!; // not what lies on it, which would be taken in hand
        began = { ...at };
        cross?.classList.add("held");
        send("pointerdown", held);
        return;
      }
      const target = held ?? under();
      if (!held) send("pointerdown", target);
      send("pointerup", target);
      send("click", target);
      letGo();
    } else if (event.key === "Escape" && held) {
      event.preventDefault();
      event.stopPropagation();
      away();
    }
  }

  useEventListener(drawing, "keydown", pressed as EventListener);
  useEventListener(drawing, "blur", away);
  useEventListener("scroll", () => at && show(), { capture: true, passive: true });
  watch(pointing, letGo);
  onScopeDispose(away);
}
