/** A drag from where it is taken up to where it is laid down, by mouse, pen or finger. */

/** As far as a pointer moves before it drags, in pixels. */
const SLACK = 6;
/** How near an edge of the window, or of what scrolls, a drag makes it scroll; and how fast. */
const EDGE = 56;
const FAST = 14;

export interface Drag {
  moved: (event: PointerEvent) => void;
  dropped: () => void;
  givenUp: () => void;
}

/** How far to scroll for a pointer at this place between two edges. */
export function scrollBy(at: number, start: number, end: number): number {
  if (at < start + EDGE) return -FAST * Math.min(1, (start + EDGE - at) / EDGE);
  if (at > end - EDGE) return FAST * Math.min(1, (at - end + EDGE) / EDGE);
  return 0;
}

/**
 * Follow a pointer that is down until it is up. Esc, a second finger or the browser gives it up.
 * `across` is what scrolls sideways under it; the window scrolls up and down.
 */
export function follow(start: PointerEvent, across: HTMLElement | null, drag: Drag): () => void {
  let last = start;
  let dragging = false;
  let frame = 0;

  function scroll(): void {
    const bar = document.querySelector<HTMLElement>(".tape")?.offsetHeight ?? 0;
    const down = scrollBy(last.clientY, bar, window.innerHeight);
    const box = across?.getBoundingClientRect();
    const aside = box
      ? scrollBy(last.clientX, Math.max(0, box.left), Math.min(window.innerWidth, box.right))
      : 0;
    const before = [window.scrollY, across?.scrollLeft];
    if (down) window.scrollBy(0, down);
    if (aside && across) across.scrollLeft += aside;
    if (before[0] !== window.scrollY || before[1] !== across?.scrollLeft) drag.moved(last);
    frame = requestAnimationFrame(scroll);
  }
  /** What was touched may be drawn anew while it is dragged: its pointer must not end with it. */
  function hold(): void {
    try {
      across?.setPointerCapture(start.pointerId);
    } catch {
      // A pointer that no device makes cannot be captured, and needs not be.
    }
  }
  function move(event: PointerEvent): void {
    if (event.pointerId !== start.pointerId) return;
    last = event;
    if (!dragging) {
      if (Math.hypot(event.clientX - start.clientX, event.clientY - start.clientY) < SLACK) return;
      dragging = true;
      hold();
      frame = requestAnimationFrame(scroll);
    }
    drag.moved(event);
  }
  function up(event: PointerEvent): void {
    if (event.pointerId !== start.pointerId) return;
    stop();
    drag.dropped();
  }
  function giveUp(): void {
    stop();
    drag.givenUp();
  }
  function second(event: PointerEvent): void {
    if (event.pointerId !== start.pointerId) giveUp();
  }
  function key(event: KeyboardEvent): void {
    if (event.key !== "Escape") return;
    event.preventDefault();
    event.stopPropagation();
    giveUp();
  }
  function stop(): void {
    cancelAnimationFrame(frame);
    window.removeEventListener("pointermove", move);
    window.removeEventListener("pointerup", up);
    window.removeEventListener("pointercancel", giveUp);
    window.removeEventListener("pointerdown", second);
    window.removeEventListener("keydown", key, true);
  }
  window.addEventListener("pointermove", move);
  window.addEventListener("pointerup", up);
  window.addEventListener("pointercancel", giveUp);
  window.addEventListener("pointerdown", second);
  window.addEventListener("keydown", key, true);
  return stop;
}

/** Two fingers, or the wheel with Ctrl: by what factor what is under them is to be larger. */
export function pinch(zoomed: (factor: number) => void) {
  const down = new Map<number, { x: number; y: number }>();
  let apart = 0;
  const distance = (): number => {
    const [a, b] = [...down.values()];
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  };
  return {
    down(event: PointerEvent): void {
      if (event.pointerType !== "touch") return;
      down.set(event.pointerId, { x: event.clientX, y: event.clientY });
      apart = distance();
    },
    move(event: PointerEvent): void {
      if (!down.has(event.pointerId)) return;
      down.set(event.pointerId, { x: event.clientX, y: event.clientY });
      const now = distance();
      if (down.size === 2 && apart && now) zoomed(now / apart);
      apart = now;
    },
    up(event: PointerEvent): void {
      down.delete(event.pointerId);
      apart = 0;
    },
    wheel(event: WheelEvent): void {
      if (!event.ctrlKey) return;
      event.preventDefault();
      zoomed(Math.exp(-event.deltaY / 300));
    },
  };
}
