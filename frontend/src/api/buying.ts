import { keepPreviousData, useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, type Ref } from "vue";
import { api, send, type Schemas } from "./client";

export type Ask = Schemas["Ask"];
export type Supplier = Schemas["Supplier"];
export type Way = Schemas["SupplierWayBody"];
export type Ways = Schemas["WayList"];
export type Words = Schemas["FirstWordsBody"];
export type BoardOffer = Schemas["BoardOffer"];
export type BoardOffers = Schemas["BoardOffers"];
export type OfferPut = Schemas["OfferPut"];
export type Verdict = Schemas["BoardVerdict"];
export type Variation = Schemas["VariationBody"];
export type Cart = Schemas["CartBody"];

/** How often the amounts are asked again while trips are being simulated, in milliseconds. */
const LOOK_AGAIN = 1200;

/** What the list asks for: boards, sheets and stock lengths. */
export function useNeeds(pk: Ref<number>, stockLength: Ref<number | null>) {
  return useQuery({
    queryKey: computed(() => ["needs", pk.value, stockLength.value]),
    queryFn: async () =>
      (
        await api.GET("/api/projects/{project}/needs", {
          params: {
            path: { project: pk.value },
            query: stockLength.value ? { stock_length: stockLength.value } : {},
          },
        })
      ).data!,
    placeholderData: keepPreviousData,
  });
}

export function useSuppliers() {
  return useQuery({
    queryKey: ["suppliers"],
    queryFn: async () => (await api.GET("/api/suppliers")).data!.suppliers,
  });
}

export interface Wish {
  chance: number;
  hour: number;
  hand: boolean;
}

/** All suppliers beside each other; asked again while trips are simulated. */
export function useWays(pk: Ref<number>, wish: Ref<Wish>) {
  return useQuery({
    queryKey: computed(() => ["needs", pk.value, "ways", wish.value]),
    queryFn: async () =>
      (
        await api.GET("/api/projects/{project}/ways", {
          params: {
            path: { project: pk.value },
            query: { chance: wish.value.chance, hour: wish.value.hour, use_hand: wish.value.hand },
          },
        })
      ).data!,
    placeholderData: keepPreviousData,
    refetchInterval: (query) =>
      query.state.data?.ways.some((w) => w.done < w.trips && !w.trouble) ? LOOK_AGAIN : false,
  });
}

/** A first answer of each of these, by their keys, while no trip there is simulated yet. */
export function useFirstLooks(
  pk: Ref<number>,
  of: Ref<{ key: string; supplier: string; grade: string }[]>,
  chance: Ref<number>,
) {
  return useQueries({
    queries: computed(() =>
      of.value.map((w) => ({
        queryKey: ["first looks", pk.value, w.supplier, w.grade, chance.value],
        queryFn: async () => ({
          key: w.key,
          groups: (
            await api.GET("/api/projects/{project}/first-look", {
              params: {
                path: { project: pk.value },
                query: { supplier: w.supplier, grade: w.grade as "", chance: chance.value },
              },
            })
          ).data!.groups,
        }),
        staleTime: Infinity,
      })),
    ),
    combine: (all) => new Map(all.flatMap((q) => (q.data ? [[q.data.key, q.data.groups] as const] : []))),
  });
}

/** How the amount at one supplier moves with one change; asked again while trips are simulated. */
export function useVariations(pk: Ref<number>, of: Ref<{ supplier: string; grade: string }>) {
  return useQuery({
    queryKey: computed(() => ["needs", pk.value, "variations", of.value]),
    queryFn: async () =>
      (
        await api.GET("/api/projects/{project}/variations", {
          params: {
            path: { project: pk.value },
            query: { supplier: of.value.supplier, grade: of.value.grade as "" },
          },
        })
      ).data!.variations,
    refetchInterval: (query) =>
      query.state.data?.some((w) => w.done < w.trips && !w.trouble) ? LOOK_AGAIN : false,
  });
}

/** The chance that the cart covers the list; `cart` tells one cart from another. */
export function useCartChance(pk: Ref<number>, supplier: Ref<string>, cart: Ref<string>) {
  return useQuery({
    queryKey: computed(() => ["cart chance", pk.value, supplier.value, cart.value]),
    queryFn: async () =>
      (
        await api.GET("/api/projects/{project}/offers/chance", {
          params: { path: { project: pk.value }, query: { supplier: supplier.value } },
        })
      ).data!.known,
    enabled: computed(() => !!supplier.value && !!cart.value),
    staleTime: Infinity,
    retry: false,
  });
}

/** The boards looked at at one supplier, judged beside the cart. */
export function useOffers(pk: Ref<number>, supplier: Ref<string>) {
  return useQuery({
    queryKey: computed(() => ["offers", pk.value, supplier.value]),
    queryFn: async () => await offers(pk.value, supplier.value),
    enabled: computed(() => !!supplier.value),
    placeholderData: keepPreviousData,
  });
}
async function offers(project: number, supplier: string): Promise<BoardOffers> {
  const params = { path: { project }, query: { supplier } };
  return (await api.GET("/api/projects/{project}/offers", { params })).data!;
}

/** One of them with the reason for its verdict, which takes longer. */
export function useOffer(pk: Ref<number>, supplier: Ref<string>, mark: Ref<string>) {
  return useQuery({
    queryKey: computed(() => ["offers", pk.value, supplier.value, mark.value]),
    queryFn: async () =>
      (
        await api.GET("/api/projects/{project}/offers/{mark}", {
          params: {
            path: { project: pk.value, mark: mark.value },
            query: { supplier: supplier.value },
          },
        })
      ).data!,
    enabled: computed(() => !!supplier.value && !!mark.value),
    retry: false,
  });
}

/** First words of plain boards, worked out beforehand. */
export function useWords(pk: Ref<number>, supplier: Ref<string>) {
  return useQuery({
    queryKey: computed(() => ["words", pk.value, supplier.value]),
    queryFn: async () =>
      (
        await api.GET("/api/projects/{project}/offers/words", {
          params: { path: { project: pk.value }, query: { supplier: supplier.value } },
        })
      ).data!.words,
    enabled: computed(() => !!supplier.value),
    staleTime: Infinity,
  });
}

export async function putOffer(project: number, offer: OfferPut): Promise<BoardOffer> {
  const params = { path: { project, mark: offer.board.id } };
  return (await api.PUT("/api/projects/{project}/offers/{mark}", { params, body: offer })).data!;
}

/** What is done with suppliers, simulated trips and boards on offer. */
export function useBuying(pk: Ref<number>) {
  const client = useQueryClient();
  const fresh = (...names: string[]) => {
    for (const name of names) void client.invalidateQueries({ queryKey: [name] });
  };
  const path = () => ({ path: { project: pk.value } });
  const simulate = useMutation({
    mutationFn: async (body: Schemas["EstimateAsked"]) => {
      await api.POST("/api/projects/{project}/estimates", { params: path(), body });
    },
    onSuccess: () => fresh("needs"),
  });
  const putSupplier = useMutation({
    mutationKey: ["supplier"],
    scope: { id: "supplier" }, // one after the other, as they were typed
    mutationFn: async (supplier: Supplier) => {
      await api.PUT("/api/suppliers/{supplier}", {
        params: { path: { supplier: supplier.id } },
        body: { supplier },
      });
    },
    // Shown at once, so that the next field is written on top of it; an older answer on its way
    // must not take it back, neither now nor before the last one is kept.
    onMutate: async (supplier) => {
      const stopped = client.cancelQueries({ queryKey: ["suppliers"] });
      client.setQueryData<Supplier[]>(["suppliers"], (all) =>
        all?.some((s) => s.id === supplier.id)
          ? all.map((s) => (s.id === supplier.id ? supplier : s))
          : [...(all ?? []), supplier],
      );
      await stopped;
    },
    onSettled: () => {
      if (client.isMutating({ mutationKey: ["supplier"] }) === 1)
        fresh("suppliers", "needs", "offers", "words", "first looks", "cart chance");
    },
  });
  const dropSupplier = useMutation({
    mutationFn: async (supplier: string) => {
      await api.DELETE("/api/suppliers/{supplier}", { params: { path: { supplier } } });
    },
    onSuccess: () => fresh("suppliers", "needs", "first looks"),
  });
  const readPrices = useMutation({
    mutationFn: async (file: File) => {
      if (file.name.toLowerCase().endsWith(".xlsx")) await send("/api/suppliers.xlsx", file);
      else await api.POST("/api/suppliers.csv", { body: { text: await file.text() } });
    },
    onSuccess: () => fresh("suppliers", "needs", "offers", "words", "first looks", "cart chance"),
  });
  const put = useMutation({
    mutationFn: async (offer: OfferPut) => await putOffer(pk.value, offer),
    onSuccess: () => fresh("offers", "words"),
  });
  const drop = useMutation({
    mutationFn: async (mark: string) => {
      await api.DELETE("/api/projects/{project}/offers/{mark}", {
        params: { path: { project: pk.value, mark } },
      });
    },
    onSuccess: () => fresh("offers", "words"),
  });
  const pile = useMutation({
    mutationFn: async (body: Schemas["PileAsked"]) => {
      await api.POST("/api/projects/{project}/offers/pile", { params: path(), body });
    },
    onSuccess: () => fresh("offers"),
  });
  const cheapest = useMutation({
    mutationFn: async (supplier: string) =>
      (
        await api.GET("/api/projects/{project}/offers/cheapest", {
          params: { ...path(), query: { supplier } },
        })
      ).data!,
  });
  const bringHome = useMutation({
    mutationFn: async () =>
      (await api.POST("/api/projects/{project}/offers/bought", { params: path() })).data!,
    onSuccess: () => fresh("offers", "project", "layout", "needs", "words"),
  });
  return { simulate, putSupplier, dropSupplier, readPrices, put, drop, pile, cheapest, bringHome, fresh };
}
