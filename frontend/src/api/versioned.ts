/**
 * Settings with a version, changed in turn. A change shows at once and is sent in its turn, made to what stands by
 * then: typing fast, or somebody else's change of another setting, takes nothing back. Where the server is out of
 * reach it waits (heldSettings.ts).
 */
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { useEventListener, useIntervalFn } from "@vueuse/core";
import { ElMessage } from "element-plus";
import { computed, onMounted, ref, type Ref } from "vue";
import { Refused } from "./client";
import { held, holdSettings, merged, settingsRefused, settingsSent } from "./heldSettings";
import { outOfReach } from "./outbox";

/** How often what waits is sent again, in milliseconds. */
const AGAIN = 4000;

interface Versioned<Value> {
  value: Value;
  version: number;
}
interface Source<Value> {
  /** The first word of the key of the query. */
  name: string;
  of: Ref<number>;
  get: (of: number) => Promise<Versioned<Value>>;
  put: (of: number, value: Value, version: number) => Promise<Versioned<Value>>;
  /** Queries that are out of date after a change, by the first words of their keys. */
  stale: readonly string[];
}

export function useVersioned<Value>({ name, of, get, put, stale }: Source<Value>) {
  const client = useQueryClient();
  const key = computed(() => [name, of.value]);
  /** What the server has said last, by what it is of: a change is made to it, and asks again only where it is old. */
  const known = new Map<number, Versioned<Value>>();
  async function asked(one: number): Promise<Versioned<Value>> {
    const found = await get(one);
    known.set(one, found);
    return found;
  }
  const query = useQuery({
    queryKey: key,
    queryFn: () => asked(of.value),
    enabled: computed(() => Number.isFinite(of.value)),
  });
  /** Counts what was refused, so that fields can show again what stands. */
  const refusals = ref(0);
  let turn: Promise<unknown> = Promise.resolve();
  let waiting = 0;

  async function send(one: number, make: (now: Value) => Value): Promise<void> {
    if (held(name, one)) {
      hold(one, make);
      return;
    }
    let stands: Versioned<Value>;
    try {
      stands = await sent(one, make);
    } catch (problem) {
      if (!outOfReach(problem) || !query.data.value) throw problem;
      hold(one, make);
      return;
    }
    if (waiting === 1) client.setQueryData([name, one], stands);
  }
  /** Made to what stands on the server by then. */
  async function sent(one: number, make: (now: Value) => Value): Promise<Versioned<Value>> {
    let stands = known.get(one) ?? (await asked(one));
    for (let tries = 0; ; tries++) {
      try {
        stands = await put(one, make(stands.value), stands.version);
        known.set(one, stands);
        return stands;
      } catch (problem) {
        if (!(problem instanceof Refused && problem.status === 409 && tries < 5)) throw problem;
        stands = await asked(one);
      }
    }
  }
  function hold(one: number, make: (now: Value) => Value): void {
    const base = known.get(one)?.value;
    const now = (held(name, one)?.mine as Value | undefined) ?? base;
    if (now !== undefined) holdSettings(name, one, base, make(now));
  }
  /** Send what waits, if the server answers again. */
  async function sendHeld(): Promise<void> {
    const one = of.value;
    const waits = held(name, one);
    if (!waits || waits.why || waiting) return;
    waiting++;
    try {
      await sent(one, (now) => merged(waits.base, waits.mine, now) as Value);
      settingsSent(name, one, waits);
    } catch (problem) {
      if (!outOfReach(problem)) settingsRefused(name, one, waits, said(problem));
      return;
    } finally {
      waiting--;
    }
    for (const other of [name, ...stale]) await client.invalidateQueries({ queryKey: [other] });
  }
  onMounted(() => void sendHeld());
  useIntervalFn(() => void sendHeld(), AGAIN);
  useEventListener("online", () => void sendHeld());

  /** In its turn; rejects where it is refused. */
  async function changed(make: (now: Value) => Value): Promise<void> {
    const one = of.value;
    const shown = value.value;
    if (shown !== undefined) {
      // A line is not found again by its number where somebody else has added one or taken one off.
      const [base, mine] = [shown, make(shown)];
      make = (theirs) => merged(base, mine, theirs) as Value;
    }
    await client.cancelQueries({ queryKey: key.value });
    const now = query.data.value;
    if (now)
      client.setQueryData<Versioned<Value>>(key.value, { version: now.version, value: make(now.value) });
    waiting++;
    const mine = turn.then(() => send(one, make));
    turn = mine.catch(() => undefined);
    try {
      await mine;
    } finally {
      waiting--;
    }
    if (!waiting) for (const other of stale) await client.invalidateQueries({ queryKey: [other] });
  }
  async function change(make: (now: Value) => Value): Promise<void> {
    try {
      await changed(make);
    } catch (problem) {
      told(problem);
    }
  }
  const said = (problem: unknown): string => (problem instanceof Error ? problem.message : String(problem));
  function told(problem: unknown): void {
    refusals.value++;
    ElMessage({
      type: "error",
      message: said(problem),
      duration: 8000,
    });
    void client.invalidateQueries({ queryKey: key.value });
  }
  const value = computed(() => (held(name, of.value)?.mine as Value | undefined) ?? query.data.value?.value);
  return { value, refusals, change, changed };
}
