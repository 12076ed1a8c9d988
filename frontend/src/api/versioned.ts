/**
 * Settings with a version, changed in turn. A change shows at once and is sent in its turn, made to what stands by
 * then: typing fast, or somebody else's change of another setting, takes nothing back.
 */
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ElMessage } from "element-plus";
import { computed, ref, type Ref } from "vue";
import { Refused } from "./client";

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
    let stands = known.get(one) ?? (await asked(one));
    for (let tries = 0; ; tries++) {
      try {
        stands = await put(one, make(stands.value), stands.version);
        break;
      } catch (problem) {
        if (!(problem instanceof Refused && problem.status === 409 && tries < 5)) throw problem;
        stands = await asked(one);
      }
    }
    known.set(one, stands);
    if (waiting === 1) client.setQueryData([name, one], stands);
  }
  /** In its turn; rejects where it is refused. */
  async function changed(make: (now: Value) => Value): Promise<void> {
    const one = of.value;
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
      refusals.value++;
      ElMessage({
        type: "error",
        message: problem instanceof Error ? problem.message : String(problem),
        duration: 8000,
      });
      void client.invalidateQueries({ queryKey: key.value });
    }
  }
  return { value: computed(() => query.data.value?.value), refusals, change, changed };
}
