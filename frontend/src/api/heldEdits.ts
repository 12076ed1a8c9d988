/**
 * Edits that the server has not acknowledged, in order, kept in the browser's own store: they
 * outlive a reload and a server that is out of reach. An entry each, so that two tabs do not write
 * over each other; a tab takes over what a tab that is gone has left.
 */
import { createStore, del, entries, set, type UseStore } from "idb-keyval";
import { shallowRef } from "vue";
import type { Edit } from "./client";
import type { Touched } from "./edits";

export interface HeldEdit {
  id: string;
  tab: string;
  pk: number;
  change: Edit;
  before: Touched[];
}

const TAB = `${Date.now().toString(36)}${Math.random().toString(36).slice(2, 8)}`;
export const held = shallowRef<HeldEdit[]>([]);
let made = 0;
let store: UseStore | null = null;
/** Without a store of its own (a private window) the browser keeps them as long as the page is open. */
function place(): UseStore | null {
  if (!store && typeof indexedDB !== "undefined") store = createStore("vivid-plank", "edits");
  return store;
}

async function written(act: (to: UseStore) => Promise<unknown>): Promise<void> {
  const to = place();
  if (!to) return;
  try {
    await act(to);
  } catch {
    store = null;
  }
}

/** Hold an edit; at once in this page, and then in the browser's store. */
export function hold(pk: number, change: Edit, before: Touched[]): HeldEdit {
  const id = `${String(Date.now()).padStart(15, "0")}.${String(made++).padStart(6, "0")}.${TAB}`;
  const plain = JSON.parse(JSON.stringify({ id, tab: TAB, pk, change, before })) as HeldEdit;
  held.value = [...held.value, plain];
  void written((to) => set(id, plain, to));
  return plain;
}

/** The same edit, as it is to be sent from now on. */
export function replace(edit: HeldEdit, values: Pick<HeldEdit, "change" | "before">): void {
  const now = JSON.parse(JSON.stringify({ ...edit, ...values })) as HeldEdit;
  held.value = held.value.map((e) => (e.id === edit.id ? now : e));
  void written((to) => set(edit.id, now, to));
}

export function drop(edit: HeldEdit): void {
  held.value = held.value.filter((e) => e.id !== edit.id);
  void written((to) => del(edit.id, to));
}

export function of(pk: number): HeldEdit[] {
  return held.value.filter((e) => e.pk === pk);
}

/** Take over what tabs that are gone have left. */
export async function adopt(): Promise<void> {
  const to = place();
  if (!to) return;
  const locks = typeof navigator === "undefined" ? undefined : navigator.locks;
  const name = (tab: string) => `vivid-plank tab ${tab}`;
  // Held as long as the page lives, so that others can tell.
  if (locks) void locks.request(name(TAB), () => new Promise(() => undefined));
  const alive = new Set((await locks?.query())?.held?.map((lock) => lock.name) ?? []);
  let found: HeldEdit[] = [];
  try {
    found = (await entries<string, HeldEdit>(to)).map(([, edit]) => edit);
  } catch {
    store = null;
  }
  const known = new Set(held.value.map((e) => e.id));
  const left = found.filter((e) => e.tab !== TAB && !known.has(e.id) && !alive.has(name(e.tab)));
  held.value = [...left, ...held.value].sort((a, b) => (a.id < b.id ? -1 : 1));
}
