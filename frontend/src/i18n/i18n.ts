/**
 * The words of the screens in the reader's language (vue-i18n). The English sentence is its own key, as with gettext:
 * English needs no catalogue, and what another language has not translated is said in English. A language is a file in
 * `languages`, named by its tag: English sentence to translation, with the same `{names}`; `words.json` lists all that
 * there are to translate.
 */
import { createI18n } from "vue-i18n";

type Words = Record<string, string>;
const LANGUAGES = import.meta.glob<Words>("./languages/*.json", { import: "default" });

export const i18n = createI18n({
  legacy: false,
  locale: "en" as string,
  fallbackLocale: false,
  fallbackFormat: true,
  missingWarn: false,
  fallbackWarn: false,
  messages: { en: {} } as Record<string, Words>,
  // A sentence has full stops in it: it is one key, and no path.
  messageResolver: (words, sentence) => (words as Words)[sentence] ?? null,
});

/** A sentence in the reader's language, its `{names}` filled in; of "one | many" the one for a number. */
export const t = i18n.global.t;

/**
 * The tag that dates, numbers and money are written by: the reader's own, where it is of the language of the words;
 * English for others is that of most of the world, 9 March and 14:05.
 */
export function tag(): string {
  const words = i18n.global.locale.value;
  const own = (globalThis.navigator?.languages ?? []).find(
    (one) => one.split("-")[0] === words.split("-")[0],
  );
  return own ?? (words === "en" ? "en-GB" : words);
}

/** Take the first language wanted that there is, before the first screen; a page keeps the one it began with. */
export async function speak(wanted: readonly string[] = navigator.languages): Promise<void> {
  const known = Object.keys(LANGUAGES).map((file) => file.replace(/^.*\/(.*)\.json$/, "$1"));
  const found = wanted
    .flatMap((one) => [one, one.split("-")[0]!])
    .find((one) => one === "en" || known.includes(one));
  const read = found && LANGUAGES[`./languages/${found}.json`];
  if (found && read) {
    i18n.global.setLocaleMessage(found, await read());
    i18n.global.locale.value = found;
  }
  document.documentElement.lang = i18n.global.locale.value;
}
