import { useMutation, useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api, send, type Schemas } from "./client";
import { enqueue, outOfReach, unsent, type Said } from "./outbox";
import { who } from "./who";
import { t } from "../i18n/i18n";

export type Piece = Schemas["HeldBody"];
export type Happening = Schemas["HappenedBody"]["event"];
export type Told = Schemas["HappenedAnswer"];
export type Rest = Schemas["RemainingBody"];

/** Every piece there is now, as it is. */
export function usePieces(layout: Ref<number | undefined>) {
  return useQuery({
    queryKey: computed(() => ["pieces", layout.value]),
    queryFn: async () =>
      (await api.GET("/api/layouts/{layout}/pieces", { params: { path: { layout: layout.value! } } })).data!
        .pieces,
    enabled: computed(() => layout.value !== undefined),
  });
}

/** What happened in a project, the newest first. */
export function useLog(pk: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ["log", pk.value]),
    queryFn: async () =>
      (await api.GET("/api/projects/{project}/log", { params: { path: { project: pk.value } } })).data!,
    enabled: computed(() => Number.isFinite(pk.value)),
  });
}

/** What planning the rest again would find. */
export function useRest(pk: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ["rest", pk.value]),
    queryFn: async () =>
      (await api.GET("/api/projects/{project}/rest", { params: { path: { project: pk.value } } })).data!,
    enabled: computed(() => Number.isFinite(pk.value)),
  });
}

/** What follows from the log. */
export const STALE = ["log", "rest", "pieces", "milling", "layout", "project", "account"];

/** Tell the server what happened; it may be told again where its answer did not come through. */
export async function tellServer({ layout, ...body }: Said): Promise<Told> {
  const path = { layout };
  return (await api.POST("/api/layouts/{layout}/events", { params: { path }, body })).data!;
}

/** Writing in the log, and planning the rest again; `fresh` asks anew for all that follows from them. */
export function useHappenings(pk: Ref<number>) {
  const client = useQueryClient();
  const fresh = (): void => {
    for (const name of STALE) void client.invalidateQueries({ queryKey: [name] });
  };
  /** Answers what it means; nothing where it is kept here until the server answers again. */
  const tell = useMutation({
    mutationFn: async (said: { layout: number; event: Happening }): Promise<Told | null> => {
      const all: Said = { ...said, who: who.value, at: new Date().toISOString() };
      try {
        if (unsent.value.length) throw new TypeError(t("others are waiting before it"));
        return await tellServer(all);
      } catch (problem) {
        if (!outOfReach(problem)) throw problem;
        enqueue(all);
        return null;
      }
    },
    networkMode: "always",
    onSuccess: fresh,
  });
  /** A log kept elsewhere, as its file; answers how many events it had. */
  const bringLog = useMutation({
    mutationFn: async (file: File) =>
      (await send<{ events: number }>(`/api/projects/${pk.value}/log.json`, file)).events,
    onSuccess: fresh,
  });
  const takeBack = useMutation({
    mutationFn: async (n: number) => {
      await api.POST("/api/projects/{project}/log/{n}/void", {
        params: { path: { project: pk.value, n } },
      });
    },
    onSuccess: fresh,
  });
  const replan = useMutation({
    mutationFn: async (seconds: number) =>
      (
        await api.POST("/api/projects/{project}/layout", {
          params: { path: { project: pk.value } },
          body: { seconds },
        })
      ).data!,
    onSuccess: fresh,
  });
  return { tell, bringLog, takeBack, replan, fresh };
}
