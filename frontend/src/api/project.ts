/**
 * The project on the screen: read once, edited at once here and saved in order behind it. What the
 * server has not acknowledged is held until it does.
 */
import { useQuery, useQueryClient, type QueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, ref, shallowRef, type ComputedRef } from "vue";
import { useRoute } from "vue-router";
import { api, Refused, type Edit, type Project, type Schemas } from "./client";
import { applied, clashes, contains, merged, reverted, touched, type Clash } from "./edits";
import { adopt, drop, held, hold, of, replace, type HeldEdit } from "./heldEdits";
import { keepRefused } from "./refusedEdits";
import { t } from "../i18n/i18n";

/** Edits not yet acknowledged, over all projects. */
export const unsaved = computed(() => held.value.length + steps.value);
/** Whether the server was out of reach when last asked to save something. */
export const waiting = ref(false);
/** What an edit and somebody else's have both changed, until the person has chosen. */
export const conflict = shallowRef<{
  label: string;
  system: Project["system"];
  clashes: Clash[];
  choose: (mine: boolean) => void;
}>();

/** Undo and redo under way. */
const steps = ref(0);
/** How long until a server that was out of reach is tried again, in milliseconds. */
const AGAIN = 4000;

/** What follows from a project and is asked again when it changes. */
const DOWNSTREAM = [
  "layout",
  "needs",
  "first looks",
  "offers",
  "cart chance",
  "words",
  "milling",
  "account",
  "checks",
];

const saving = new Map<number, Promise<void>>();
const told = new Map<string, (saved: boolean) => void>();
const versions = new Map<number, number>();

export function projectKey(pk: number): [string, number] {
  return ["project", pk];
}

/** The project's number in the address. */
export function useProjectPk(): ComputedRef<number> {
  const route = useRoute();
  return computed(() => Number(route.params.project));
}

export function useProject() {
  const pk = useProjectPk();
  const client = useQueryClient();
  const query = useQuery({
    queryKey: computed(() => projectKey(pk.value)),
    queryFn: async () => withHeld(await fetched(pk.value)),
    enabled: computed(() => Number.isFinite(pk.value)),
    staleTime: 30_000,
  });
  return {
    pk,
    project: query.data,
    trouble: query.error,
    edit: (change: Edit) => edit(client, pk.value, change),
    undo: () => undoIn(client, pk.value),
    redo: () => step(client, pk.value, "redo"),
  };
}

/** What the server has, and on top of it what it has not acknowledged yet. */
function withHeld(project: Project): Project {
  return of(project.pk).reduce((shown, e) => applied(shown, e.change), project);
}

async function fetched(pk: number): Promise<Project> {
  return (await api.GET("/api/projects/{project}", { params: { path: { project: pk } } })).data!;
}

/**
 * Apply the edit to what is shown, hold it, then save it. True when it is saved, or held until the
 * server answers again; a refusal puts back what is kept, says why, and keeps what was typed apart.
 */
export function edit(client: QueryClient, pk: number, change: Edit): Promise<boolean> {
  const before = client.getQueryData<Project>(projectKey(pk));
  const waits = hold(pk, change, before ? touched(before, change) : []);
  if (before) client.setQueryData(projectKey(pk), applied(before, change));
  const saved = new Promise<boolean>((tell) => told.set(waits.id, tell));
  send(client, pk);
  return saved;
}

export function undoIn(client: QueryClient, pk: number): Promise<boolean> {
  return step(client, pk, "undo");
}

/** Undo or redo; an edit that the server does not have yet is simply taken back. */
async function step(client: QueryClient, pk: number, which: "undo" | "redo"): Promise<boolean> {
  const last = of(pk).at(-1);
  if (last && waiting.value) {
    if (which === "redo") return false;
    drop(last);
    client.setQueryData<Project>(projectKey(pk), (now) => now && reverted(now, last.before));
    void client.invalidateQueries({ queryKey: projectKey(pk) });
    return true;
  }
  steps.value++;
  await saving.get(pk);
  try {
    const answer = await api.POST(`/api/projects/{project}/${which}`, {
      params: { path: { project: pk } },
      body: { version: version(client, pk) },
    });
    shown(client, answer.data!);
    return true;
  } catch (problem) {
    versions.delete(pk);
    await client.invalidateQueries({ queryKey: projectKey(pk) });
    tell(problem);
    return false;
  } finally {
    steps.value--;
  }
}

function version(client: QueryClient, pk: number): number {
  const there = client.getQueryData<Project>(projectKey(pk));
  return Math.max(versions.get(pk) ?? 0, there?.version ?? 0);
}

function shown(client: QueryClient, kept: Project): void {
  versions.set(kept.pk, kept.version);
  client.setQueryData(projectKey(kept.pk), withHeld(kept));
  for (const key of DOWNSTREAM) void client.invalidateQueries({ queryKey: [key, kept.pk] });
}

function tell(problem: unknown): void {
  const why = problem instanceof Refused ? problem : new Refused(0, String(problem));
  ElMessage({
    type: "error",
    message: t("Not saved: {message}", { message: why.message }),
    duration: 8000,
    showClose: true,
  });
}

function settle(one: HeldEdit, saved: boolean): void {
  told.get(one.id)?.(saved);
  told.delete(one.id);
}

/** Send what is held of a project, one edit after another. */
export function send(client: QueryClient, pk: number): void {
  if (saving.has(pk)) return;
  const run = sendAll(client, pk).finally(() => {
    saving.delete(pk);
    // One made at the moment the last was saved.
    if (of(pk).length && !waiting.value) send(client, pk);
  });
  saving.set(pk, run);
}

async function sendAll(client: QueryClient, pk: number): Promise<void> {
  for (let one = of(pk)[0]; one; one = of(pk)[0]) {
    try {
      const answer = await api.POST("/api/projects/{project}/edits", {
        params: { path: { project: pk } },
        body: { ...one.change, version: version(client, pk) } as Schemas["EditBody"],
      });
      drop(one);
      waiting.value = false;
      shown(client, answer.data!);
      settle(one, true);
    } catch (problem) {
      if (outOfReach(problem)) {
        waiting.value = true;
        for (const e of of(pk)) settle(e, true);
        setTimeout(() => send(client, pk), AGAIN);
        return;
      }
      if (problem instanceof Refused && problem.status === 409) {
        if (!(await met(client, one))) return;
        continue;
      }
      drop(one);
      keepRefused(one, problem instanceof Error ? problem.message : String(problem));
      versions.delete(pk);
      await client.invalidateQueries({ queryKey: projectKey(pk) });
      tell(problem);
      settle(one, false);
    }
  }
}

/**
 * Somebody has edited the project since: what does not touch the same things is sent again on top,
 * for the rest the person chooses. False where the server is out of reach by now.
 */
async function met(client: QueryClient, one: HeldEdit): Promise<boolean> {
  let theirs: Project;
  try {
    theirs = await fetched(one.pk);
  } catch {
    waiting.value = true;
    setTimeout(() => send(client, one.pk), AGAIN);
    return false;
  }
  versions.set(one.pk, theirs.version);
  const both = clashes(one.before, one.change, theirs);
  const done = contains(theirs, one.change);
  const mine = done || !both.length || (await chosen(one, both, theirs.system));
  if (done || !mine) drop(one);
  else
    replace(one, {
      change: merged(one.before, one.change, theirs),
      before: touched(theirs, one.change),
    });
  client.setQueryData(projectKey(one.pk), withHeld(theirs));
  if (done || !mine) settle(one, done);
  return true;
}

/** One question after the other: edits of two projects may meet somebody else's at once. */
let asking: Promise<unknown> = Promise.resolve();
function chosen(one: HeldEdit, both: Clash[], system: Project["system"]): Promise<boolean> {
  const answered = asking.then(() => asked(one, both, system));
  asking = answered;
  return answered;
}

function asked(one: HeldEdit, both: Clash[], system: Project["system"]): Promise<boolean> {
  return new Promise((answer) => {
    conflict.value = {
      label: one.change.label,
      system,
      clashes: both,
      choose: (mine) => {
        conflict.value = undefined;
        answer(mine);
      },
    };
  });
}

function outOfReach(problem: unknown): boolean {
  return !(problem instanceof Refused) || problem.status === 0 || problem.status >= 502;
}

/** Take up what was held when the page was left, now and whenever the network is back. */
export async function resume(client: QueryClient): Promise<void> {
  await adopt();
  const again = () => {
    for (const pk of new Set(held.value.map((e) => e.pk))) send(client, pk);
  };
  window.addEventListener("online", again);
  for (const pk of new Set(held.value.map((e) => e.pk)))
    await client.invalidateQueries({ queryKey: projectKey(pk) });
  again();
}
