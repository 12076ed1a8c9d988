/** Who works at this screen; kept in the browser, and written in the log. */
import { useLocalStorage } from "@vueuse/core";

export const who = useLocalStorage("who works here", "");
