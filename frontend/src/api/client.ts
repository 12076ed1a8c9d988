import createClient from "openapi-fetch";
import { ref } from "vue";
import { Refused } from "./refused";
import type { components, paths } from "./schema";
import { t } from "../i18n/i18n";

export type Schemas = components["schemas"];
export type Project = Schemas["ProjectBody"];
export type Part = Schemas["Part"];
export type Board = Schemas["Board"];
export type Defect = Schemas["Defect"];
export type Station = Schemas["Station"];
export type Grain = Schemas["Grain"];
export type Shop = Schemas["Shop"];
export type Layout = Schemas["LayoutBody"];
export type Measure = Schemas["Measure"];
export type Drawing = Schemas["DrawingBody"];
export type Reading = Schemas["ReadingBody"];
export type Found = Schemas["FoundBody"];
export type View = Schemas["ViewBody"];
export type Step = Schemas["StepBody"];
/** One edit; what is left out stays as it is. `was` is the id a thing had before it was renamed. */
export interface Edit {
  label: string;
  name?: string;
  system?: Schemas["EditBody"]["system"];
  shop?: Shop;
  put_parts?: (Part & { was?: string })[];
  remove_parts?: string[];
  put_boards?: (Board & { was?: string })[];
  remove_boards?: string[];
  measures?: Measure[];
}

export { Refused };

/** When what is shown was read, where the server does not answer and the browser's copy stands in. */
export const asOf = ref<Date | null>(null);

export const api = createClient<paths>({ baseUrl: window.location.origin });

api.use({
  async onResponse({ response }) {
    if (response.ok) {
      const read = response.headers.get("x-kept") ? new Date(response.headers.get("date") ?? "") : null;
      asOf.value = read && Number.isNaN(read.getTime()) ? new Date() : read;
      return undefined;
    }
    throw await refusalOf(response);
  },
  onError() {
    return new Refused(
      0,
      t("the application does not answer; edits are kept in this browser and sent when it does"),
    );
  },
});

/** Whether a browser sends it though the page is left at once: they do so with less than 64 KB. */
export const small = (body: unknown): boolean => JSON.stringify(body).length < 60_000;

/** Send a file as it is. */
export async function send<T>(
  path: string,
  content: Blob | string,
  headers: Record<string, string> = {},
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { method: "POST", body: content, headers });
  } catch {
    throw new Refused(0, t("the application does not answer; nothing was sent, try again in a moment"));
  }
  if (!response.ok) throw await refusalOf(response);
  return (await response.json()) as T;
}

async function refusalOf(response: Response): Promise<Refused> {
  try {
    const body = (await response.json()) as { what?: string; where?: string };
    return new Refused(response.status, body.what ?? response.statusText, body.where ?? "");
  } catch {
    return new Refused(response.status, t("the application gave no readable answer"));
  }
}
