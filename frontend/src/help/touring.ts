/** How far the walk through the demo has come; kept in the browser, so that it can be taken up again. */
import { reactive } from "vue";

const PLACE = "tour stop";
export const tour = reactive({ open: false, project: 0, at: kept() });

function kept(): number {
  try {
    return Number(localStorage.getItem(PLACE)) || 0;
  } catch {
    return 0;
  }
}

function keep(at: number): void {
  tour.at = at;
  try {
    localStorage.setItem(PLACE, String(at));
  } catch {
    // Without a store it is begun anew.
  }
}

/** Leave it at a stop, to be taken up there again; at none, at its end. */
export function leave(at = 0): void {
  tour.open = false;
  keep(at);
}
