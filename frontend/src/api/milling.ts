import { useEventListener, useIntervalFn } from "@vueuse/core";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, onMounted, type Ref } from "vue";
import { KEPT } from "../offline/answers";
import { api, small, type Schemas } from "./client";
import { useVersioned } from "./versioned";
import { withOutbox } from "./withOutbox";
import { who } from "./who";
import { STALE, tellServer } from "./log";
import {
  enqueue,
  isTap,
  known,
  outOfReach,
  remember,
  send,
  sent,
  tapsOf,
  unsent,
  type Tap,
  type Waiting,
} from "./outbox";
import { t } from "../i18n/i18n";

export type Milling = Schemas["MillingBody"];
/** With everything that has a usual value filled in, as the server answers it. */
export type Whole<T> = {
  [K in keyof T]-?: T[K] extends object ? Whole<NonNullable<T[K]>> : NonNullable<T[K]>;
};
export type Method = Schemas["WayBody"]["method"];
export type Settings = Whole<Schemas["MillingSettings"]["milling"]>;

const put = async (one: Waiting): Promise<void> => {
  if (!isTap(one)) return void (await tellServer(one));
  const { layout, ...body } = one;
  // A tap goes out though the page is left at once.
  await api.PUT("/api/layouts/{layout}/steps", { params: { path: { layout } }, body, keepalive: true });
};

/**
 * The steps of the standing plan, and ticking them off; out of reach of the server ticks are kept
 * and sent later.
 */
export function useMilling(pk: Ref<number>) {
  const client = useQueryClient();
  const key = computed(() => ["milling", pk.value]);
  const query = useQuery({
    queryKey: key,
    queryFn: async () => {
      const before = sent().length;
      const { data, response } = await api.GET("/api/projects/{project}/milling", {
        params: { path: { project: pk.value } },
      });
      if (response.headers.get(KEPT)) return withOutbox(data!, [...sent(), ...tapsOf(unsent.value)]);
      known(before);
      return withOutbox(data!, tapsOf(unsent.value));
    },
    enabled: computed(() => Number.isFinite(pk.value)),
    networkMode: "always",
  });

  let under = 0; // ticks on their way
  async function mark(
    stepKey: string,
    done: boolean,
    taken: { reading?: number | null; minutes?: number | null; passes?: number | null } = {},
  ): Promise<void> {
    const now = query.data.value;
    if (!now) return;
    // An answer asked for before this tick would take it back on the screen.
    under++;
    void client.cancelQueries({ queryKey: key.value });
    const tap: Tap = {
      layout: now.layout,
      key: stepKey,
      done,
      reading: taken.reading ?? null,
      minutes: taken.minutes ?? null,
      passes: taken.passes ?? null,
      who: who.value,
    };
    client.setQueryData<Milling>(key.value, withOutbox(now, [tap]));
    try {
      if (unsent.value.length) throw new TypeError(t("others are waiting before it"));
      await put(tap);
      remember(tap);
    } catch (problem) {
      if (outOfReach(problem)) {
        enqueue(tap);
        void flush();
        return;
      }
      ElMessage({
        type: "error",
        message: t("Not kept: {message}", { message: problem instanceof Error ? problem.message : problem }),
        duration: 8000,
      });
    } finally {
      under--;
    }
    await fresh();
  }
  /** Ask the server again once nothing is on its way to it. */
  async function fresh(): Promise<void> {
    if (!under && !unsent.value.length) await client.invalidateQueries({ queryKey: key.value });
  }

  async function flush(): Promise<void> {
    const told = unsent.value.some((one) => !isTap(one));
    const many = await send(put, (one, why) => {
      const what = isTap(one) ? one.key : t("What happened to {piece}", { piece: one.event.piece });
      // What somebody wrote stays on the screen until it is read.
      const note = isTap(one) || !one.event.note ? "" : t("You wrote: {note}", { note: one.event.note });
      const duration = isTap(one) ? 8000 : 0;
      ElMessage({
        type: "error",
        message: `${t("{what} was not kept: {why}.", { what, why })} ${note}`.trim(),
        duration,
        showClose: true,
      });
    });
    if (many) await fresh();
    if (many && told) for (const name of STALE) void client.invalidateQueries({ queryKey: [name] });
  }
  useEventListener("online", flush);
  useIntervalFn(() => unsent.value.length && void flush(), 3000);
  onMounted(flush);
  return { ...query, mark };
}

/** How this shop mills a project. */
export function useSettings(pk: Ref<number>) {
  const whole = ({ milling, version }: Schemas["MillingSettings"]) => ({
    value: milling as Settings,
    version,
  });
  const { value, ...rest } = useVersioned<Settings>({
    name: "milling-settings",
    of: pk,
    get: async (project) =>
      whole(
        (await api.GET("/api/projects/{project}/milling-settings", { params: { path: { project } } })).data!,
      ),
    put: async (project, milling, version) =>
      whole(
        (
          await api.PUT("/api/projects/{project}/milling-settings", {
            params: { path: { project } },
            body: { milling, version },
            keepalive: small(milling),
          })
        ).data!,
      ),
    stale: ["milling", "schools", "days", "workshop", "workshops", "project-workshop"],
  });
  return { settings: value, ...rest };
}

/** The shop's days of a layout; asked again while they are planned. */
export function useDays(layout: Ref<number | undefined>) {
  const client = useQueryClient();
  const key = computed(() => ["days", layout.value]);
  const query = useQuery({
    queryKey: key,
    queryFn: async () =>
      (await api.GET("/api/layouts/{layout}/days", { params: { path: { layout: layout.value! } } })).data!,
    enabled: computed(() => layout.value !== undefined),
    refetchInterval: (q) => (q.state.data?.state === "asked" ? 500 : false),
  });
  async function plan(begins: string, on_day: Record<string, number> = {}): Promise<void> {
    const { data } = await api.POST("/api/layouts/{layout}/days", {
      params: { path: { layout: layout.value! } },
      body: { begins, on_day },
    });
    client.setQueryData(key.value, data);
  }
  return { days: query.data, plan };
}
