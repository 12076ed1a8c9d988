/** The boards looked at at one supplier: those the server has judged, and those that wait for it. */
import { useEventListener, useIntervalFn } from "@vueuse/core";
import { computed, onMounted, ref, type Ref } from "vue";
import {
  putOffer,
  useBuying,
  useOffers,
  useSuppliers,
  useWords,
  type BoardOffer,
  type OfferPut,
} from "../../../api/buying";
import { outOfReach } from "../../../api/outbox";
import { forget, hold, meanWidth, sendWaiting, ticketFeet, waiting } from "./aisle";

/** How often boards that wait are sent again, in milliseconds. */
const AGAIN = 4000;
const CHOSEN = "supplier in the aisle";

export function useAisle(pk: Ref<number>) {
  const { data: suppliers } = useSuppliers();
  const picked = ref(localStorage.getItem(CHOSEN) ?? "");
  const supplier = computed({
    get: () =>
      suppliers.value?.some((s) => s.id === picked.value) ? picked.value : (suppliers.value?.[0]?.id ?? ""),
    set: (id) => {
      picked.value = id;
      localStorage.setItem(CHOSEN, id);
    },
  });
  const at = computed(() => suppliers.value?.find((s) => s.id === supplier.value));
  const { data: judged } = useOffers(pk, supplier);
  const { data: words } = useWords(pk, supplier);
  const buying = useBuying(pk);
  const waits = computed(() => waiting.value.filter((w) => w.project === pk.value));

  /** All of them, with what waits as it was last said here. */
  const offers = computed<BoardOffer[]>(() => {
    const held = new Map(waits.value.map((w) => [w.offer.board.id, w.offer]));
    const known = (judged.value?.offers ?? []).map((o) => {
      const now = held.get(o.offer.board.id);
      held.delete(o.offer.board.id);
      return now ? { ...o, offer: { ...o.offer, ...now } as BoardOffer["offer"] } : o;
    });
    return [...known, ...[...held.values()].map(unjudged)];
  });
  function unjudged(offer: OfferPut): BoardOffer {
    const feet = at.value
      ? ticketFeet(at.value.ticket, offer.board.quarter, meanWidth(offer.board), offer.board.length)
      : 0;
    const over = offer.ticket_feet ? offer.ticket_feet - feet : 0;
    return {
      offer: offer as BoardOffer["offer"],
      group: "",
      verdict: null,
      feet,
      over_feet: over,
      over: over * Number(offer.per_foot),
      kg: null,
    };
  }
  const waitingOf = (mark: string) => waits.value.find((w) => w.offer.board.id === mark);
  const isWaiting = (mark: string) => !!waitingOf(mark);

  /** Record a board, or what is known of it now; null where the server is out of reach and it waits. */
  async function record(offer: OfferPut): Promise<BoardOffer | null> {
    hold({ project: pk.value, offer });
    const answers = new Map<string, BoardOffer>();
    await sendWaiting(
      async (w) => answers.set(w.offer.board.id, await putOffer(w.project, w.offer)),
      outOfReach,
    );
    buying.fresh("offers", "words");
    return answers.get(offer.board.id) ?? null;
  }
  const again = () => {
    if (waiting.value.length)
      void sendWaiting((w) => putOffer(w.project, w.offer), outOfReach).then(
        (many) => many && buying.fresh("offers", "words"),
      );
  };
  useIntervalFn(again, AGAIN);
  useEventListener("online", again);
  onMounted(again);

  const cart = computed(() => offers.value.filter((o) => o.offer.state === "cart"));
  const wanted = computed(() => judged.value?.cart ?? []);
  return {
    suppliers,
    supplier,
    at,
    offers,
    cart,
    wanted,
    words,
    waits,
    waitingOf,
    isWaiting,
    forget,
    record,
    buying,
  };
}
