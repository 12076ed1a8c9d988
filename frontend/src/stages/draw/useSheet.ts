/** A sheet that is looked at through a frame: zoomed, moved, and pointed at, with what lies near snapped to. */
import { computed, ref, watch, type Ref } from "vue";
import { snapped, type Place } from "./takeoff";

type View = Parameters<typeof snapped>[1];

export function useSheet(view: Ref<View>, points: Ref<Place[]>) {
  const frame = ref({ x: 0, y: 0, w: 1, h: 1 });
  const svg = ref<SVGSVGElement>();
  /** The width of a line on the sheet, and the measure of what is near. */
  const stroke = computed(() => frame.value.w / 600);
  let dragged: { x: number; y: number } | null = null;

  function whole(): void {
    frame.value = { x: 0, y: 0, w: view.value.width, h: view.value.height };
  }
  watch(view, whole, { immediate: true });
  function place(event: MouseEvent): Place {
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      svg.value!.getScreenCTM()!.inverse(),
    );
    return snapped([p.x, p.y], view.value, points.value, stroke.value * 8);
  }
  /** By a factor, about the pointer or else the middle. */
  function zoom(by: number, event?: WheelEvent): void {
    const f = frame.value;
    const w = Math.min(Math.max(f.w * by, view.value.width / 60), view.value.width * 1.5);
    const h = (w / f.w) * f.h;
    const box = svg.value!.getBoundingClientRect();
    const mx = event ? (event.clientX - box.left) / box.width : 0.5;
    const my = event ? (event.clientY - box.top) / box.height : 0.5;
    frame.value = { x: f.x + (f.w - w) * mx, y: f.y + (f.h - h) * my, w, h };
  }
  /** By so much of the sheet's own measure. */
  function shift(x: number, y: number): void {
    frame.value = { ...frame.value, x: frame.value.x + x, y: frame.value.y + y };
  }
  const drag = {
    begin: (event: PointerEvent) => void (dragged = { x: event.clientX, y: event.clientY }),
    end: () => void (dragged = null),
    /** Whether the sheet went along. */
    move(event: PointerEvent): boolean {
      if (!dragged) return false;
      const per = frame.value.w / svg.value!.getBoundingClientRect().width;
      shift((dragged.x - event.clientX) * per, (dragged.y - event.clientY) * per);
      dragged = { x: event.clientX, y: event.clientY };
      return true;
    },
  };
  return { frame, svg, stroke, whole, place, zoom, shift, drag };
}
