/** What every test has: the words of the screens, and a reader who writes 9 March. */
import { config } from "@vue/test-utils";
import { i18n } from "../i18n/i18n";

config.global.plugins.push(i18n);
const navigator = (globalThis.navigator ??= { onLine: true } as Navigator);
Object.defineProperty(navigator, "languages", { value: ["en-GB"], configurable: true });
