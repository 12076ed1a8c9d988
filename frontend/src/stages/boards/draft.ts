/** What is being recorded in the yard, kept until it is in the rack: over a reload, a Back, a call. */
import type { Quick } from "./quick";

interface Store {
  getItem(name: string): string | null;
  setItem(name: string, text: string): void;
  removeItem(name: string): void;
}
const place = (pk: number) => `survey of project ${pk}`;

export function kept(pk: number, store: Store = localStorage): Quick | null {
  try {
    return JSON.parse(store.getItem(place(pk)) ?? "null") as Quick | null;
  } catch {
    return null;
  }
}

export function keep(pk: number, answers: Quick, store: Store = localStorage): void {
  try {
    store.setItem(place(pk), JSON.stringify(answers));
  } catch {
    // A private window keeps it as long as the page is open.
  }
}

export function forget(pk: number, store: Store = localStorage): void {
  store.removeItem(place(pk));
}
