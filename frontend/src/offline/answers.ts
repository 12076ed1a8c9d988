/**
 * What is kept for when the server is out of reach, and how it is answered then. Pure: the worker
 * hands in what it needs.
 */

/** The questions pages ask to show what there is: what was read last stays readable. */
const READ = new RegExp(
  "^/api/(projects(/\\d+(/(milling|milling-settings|layout|needs|account|checks|schools|sheets|drawings" +
    "|ways|offers|offers/words|workshop))?)?" +
    "|layouts/\\d+/(days|chalk|reasons)|workshops(/\\d+(/(learned|books))?)?" +
    "|woods|patterns|instruments|stock|suppliers)$",
);

/** A header of answers that were kept. */
export const KEPT = "x-kept";

export type Way = "page" | "file" | "answer" | "none";

/**
 * How a request is answered: pages and answers ask the server first, files whose name tells their
 * content do not.
 */
export function wayOf(method: string, url: URL, origin: string, navigates: boolean): Way {
  if (method !== "GET" || url.origin !== origin) return "none";
  if (navigates || url.pathname === "/") return "page";
  if (url.pathname.startsWith("/assets/")) return "file";
  return READ.test(url.pathname) ? "answer" : "none";
}

/** The name something is kept under: all pages are one. */
export function keptAs(way: Way, url: URL): string {
  return way === "page" ? "/" : url.pathname + url.search;
}

export interface Kept {
  match(name: string): Promise<Response | undefined>;
  put(name: string, response: Response): Promise<void>;
  /** What is kept, the oldest first. */
  keys(): Promise<readonly { url: string }[]>;
  delete(name: string): Promise<boolean>;
}

/** Built files kept at most: those of a few versions. */
export const MOST_FILES = 240;

/** The server's answer, kept for later; what was kept where it cannot be reached. */
export async function networkFirst(
  name: string,
  kept: Kept,
  ask: () => Promise<Response>,
): Promise<Response> {
  let answer: Response;
  try {
    answer = await ask();
  } catch (trouble) {
    const old = await kept.match(name);
    if (old) return labelled(old);
    throw trouble;
  }
  if (answer.ok) await kept.put(name, answer.clone());
  return answer;
}

/** Says on an answer that it is not the server's of now. */
function labelled(old: Response): Response {
  const headers = new Headers(old.headers);
  headers.set(KEPT, "1");
  return new Response(old.body, { status: old.status, headers });
}

/** What is kept, or the server's answer where nothing is; of too many files the oldest go. */
export async function cacheFirst(name: string, kept: Kept, ask: () => Promise<Response>): Promise<Response> {
  const known = await kept.match(name);
  if (known) return known;
  const answer = await networkFirst(name, kept, ask);
  const files = (await kept.keys()).filter((k) => new URL(k.url).pathname.startsWith("/assets/"));
  for (const old of files.slice(0, Math.max(0, files.length - MOST_FILES))) await kept.delete(old.url);
  return answer;
}
