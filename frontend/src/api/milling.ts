import { useEventListener, useIntervalFn } from "@vueuse/core";
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, onMounted, ref, type Ref } from "vue";
import { KEPT } from "../offline/strategies";
import { api, Refused, type Schemas } from "./client";
import { withOutbox } from "./withOutbox";
import { enqueue, known, outOfReach, remember, send, sent, unsent, type Tap } from "./outbox";

export type Milling = Schemas["MillingBody"];
/** With everything that has a usual value filled in, as the server answers it. */
type Whole<T> = { [K in keyof T]-?: T[K] extends object ? Whole<NonNullable<T[K]>> : NonNullable<T[K]> };
export type Method = Schemas["WayBody"]["method"];
export type Settings = Whole<Schemas["MillingSettings"]["milling"]>;

const put = async (tap: Tap): Promise<void> => {
  const { layout, ...body } = tap;
  await api.PUT("/api/layouts/{layout}/steps", { params: { path: { layout } }, body });
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
      if (response.headers.get(KEPT)) return withOutbox(data!, [...sent(), ...unsent.value]);
      known(before);
      return withOutbox(data!, unsent.value);
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
    };
    client.setQueryData<Milling>(key.value, withOutbox(now, [tap]));
    try {
      if (unsent.value.length) throw new TypeError("others are waiting before it");
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
        message: `Not kept: ${problem instanceof Error ? problem.message : problem}`,
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
    const many = await send(put, (tap, why) =>
      ElMessage({ type: "error", message: `${tap.key} was not kept: ${why}`, duration: 8000 }),
    );
    if (many) await fresh();
  }
  useEventListener("online", flush);
  useIntervalFn(() => unsent.value.length && void flush(), 3000);
  onMounted(flush);
  return { ...query, mark };
}

interface Kept {
  milling: Settings;
  version: number;
}
/** What to change in whatever settings stand when it is sent. */
export type Change = (now: Settings) => Settings;

/**
 * How this shop mills. A change shows at once and is sent in its turn, made to what stands by then: typing fast, or
 * somebody else's change of another setting, takes nothing back.
 */
export function useSettings(pk: Ref<number>) {
  const client = useQueryClient();
  const key = computed(() => ["milling-settings", pk.value]);
  const get = async (project: number): Promise<Kept> =>
    (await api.GET("/api/projects/{project}/milling-settings", { params: { path: { project } } }))
      .data as Kept;
  const query = useQuery({
    queryKey: key,
    queryFn: () => get(pk.value),
    enabled: computed(() => Number.isFinite(pk.value)),
  });
  /** Counts what was refused, so that fields can show again what stands. */
  const refusals = ref(0);
  let turn: Promise<unknown> = Promise.resolve();
  let waiting = 0;

  async function send(project: number, make: Change): Promise<void> {
    let stands = await get(project);
    for (let tries = 0; ; tries++) {
      try {
        const body = { milling: make(stands.milling), version: stands.version };
        stands = (
          await api.PUT("/api/projects/{project}/milling-settings", { params: { path: { project } }, body })
        ).data as Kept;
        break;
      } catch (problem) {
        if (!(problem instanceof Refused && problem.status === 409 && tries < 5)) throw problem;
        stands = await get(project);
      }
    }
    if (waiting === 1) client.setQueryData(["milling-settings", project], stands);
  }
  /** In its turn; rejects where it is refused. */
  async function changed(make: Change): Promise<void> {
    const project = pk.value;
    await client.cancelQueries({ queryKey: key.value });
    const now = query.data.value;
    if (now) client.setQueryData<Kept>(key.value, { ...now, milling: make(now.milling) });
    waiting++;
    const mine = turn.then(() => send(project, make));
    turn = mine.catch(() => undefined);
    try {
      await mine;
    } finally {
      waiting--;
    }
    if (!waiting)
      for (const name of ["milling", "schools", "days"]) await client.invalidateQueries({ queryKey: [name] });
  }
  async function change(make: Change): Promise<void> {
    try {
      await changed(make);
    } catch (problem) {
      refusals.value++;
      ElMessage({
        type: "error",
        message: problem instanceof Error ? problem.message : String(problem),
        duration: 8000,
      });
      void client.invalidateQueries({ queryKey: key.value });
    }
  }
  return { settings: computed(() => query.data.value?.milling), refusals, change, changed };
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
