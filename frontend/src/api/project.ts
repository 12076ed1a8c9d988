/** The project on the screen: read once, edited at once here and saved in order behind it. */
import { useQuery, useQueryClient, type QueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, ref, type ComputedRef } from "vue";
import { useRoute } from "vue-router";
import { api, Refused, type Board, type Edit, type Part, type Project, type Schemas } from "./client";

/** Edits not yet acknowledged, over all projects; the page warns before it is left with any. */
export const unsaved = ref(0);

/** What follows from a project and is asked again when it changes. */
const DOWNSTREAM = ["layout", "needs", "milling", "account", "checks"];

let saving: Promise<void> = Promise.resolve();

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
    queryFn: async () =>
      (await api.GET("/api/projects/{project}", { params: { path: { project: pk.value } } })).data!,
    enabled: computed(() => Number.isFinite(pk.value)),
    staleTime: 30_000,
  });
  return {
    pk,
    project: query.data,
    trouble: query.error,
    edit: (change: Edit) => edit(client, pk.value, change),
    undo: () => step(client, pk.value, "undo"),
    redo: () => step(client, pk.value, "redo"),
  };
}

/** Apply the edit to what is shown, then save it; a refusal puts back what is kept and says why. */
export function edit(client: QueryClient, pk: number, change: Edit): Promise<boolean> {
  const before = client.getQueryData<Project>(projectKey(pk));
  if (before) client.setQueryData(projectKey(pk), applied(before, change));
  return save(client, pk, async (version) => {
    const answer = await api.POST("/api/projects/{project}/edits", {
      params: { path: { project: pk } },
      body: { ...change, version } as Schemas["EditBody"],
    });
    return answer.data!;
  });
}

function step(client: QueryClient, pk: number, which: "undo" | "redo"): Promise<boolean> {
  return save(client, pk, async (version) => {
    const answer = await api.POST(`/api/projects/{project}/${which}`, {
      params: { path: { project: pk } },
      body: { version },
    });
    return answer.data!;
  });
}

const versions = new Map<number, number>();

/** One save after another, each from the version the one before left. */
function save(client: QueryClient, pk: number, act: (version: number) => Promise<Project>): Promise<boolean> {
  unsaved.value++;
  const run = saving.then(async () => {
    try {
      const shown = client.getQueryData<Project>(projectKey(pk));
      const version = Math.max(versions.get(pk) ?? 0, shown?.version ?? 0);
      const kept = await act(version);
      versions.set(pk, kept.version);
      unsaved.value--;
      // Later edits are on the screen already: only the newest answer may replace it.
      const now = client.getQueryData<Project>(projectKey(pk));
      if (unsaved.value === 0 || !now) client.setQueryData(projectKey(pk), kept);
      else
        client.setQueryData(projectKey(pk), {
          ...now,
          version: kept.version,
          undo: kept.undo,
          redo: kept.redo,
        });
      for (const key of DOWNSTREAM) void client.invalidateQueries({ queryKey: [key, pk] });
      return true;
    } catch (problem) {
      unsaved.value--;
      versions.delete(pk);
      await client.invalidateQueries({ queryKey: projectKey(pk) });
      const told = problem instanceof Refused ? problem : new Refused(0, String(problem));
      ElMessage({ type: "error", message: `Not saved: ${told.message}`, duration: 8000, showClose: true });
      return false;
    }
  });
  saving = run.then(() => undefined);
  return run;
}

function applied(project: Project, change: Edit): Project {
  return {
    ...project,
    name: change.name ?? project.name,
    system: change.system ?? project.system,
    shop: change.shop ?? project.shop,
    parts: put(project.parts, change.put_parts ?? [], change.remove_parts ?? []),
    boards: put(project.boards, change.put_boards ?? [], change.remove_boards ?? []),
    measures:
      change.measures?.map(
        (m) =>
          project.measures.find((n) => n.name === m.name && n.text === m.text && n.kind === m.kind) ?? {
            ...m,
            ticks: null,
            number: null,
          },
      ) ?? project.measures,
    undo: change.label,
    redo: "",
  };
}

function put<T extends Part | Board>(things: T[], puts: (T & { was?: string })[], remove: string[]): T[] {
  const found = things.filter((thing) => !remove.includes(thing.id));
  for (const { was, ...rest } of puts) {
    const thing = rest as unknown as T;
    const at = found.findIndex((other) => other.id === (was || thing.id));
    if (at >= 0) found[at] = thing;
    else found.push(thing);
  }
  return found;
}
