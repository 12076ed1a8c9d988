/** The cache of what the server answers, and when it is asked again. */
import { QueryClient } from "@tanstack/vue-query";
import { toValue } from "vue";
import { Refused } from "./refused";

/**
 * A query client that never takes a first answer asked for before a change for one after it.
 *
 * The library's own joins a first reading that is still on its way when a query is invalidated, so
 * what was just kept would be missing from the screen until the next reading. Here such a reading
 * is cancelled and made anew.
 */
export class FreshQueryClient extends QueryClient {
  constructor() {
    super({
      defaultOptions: {
        queries: {
          // A refusal will not change its mind; a server that is starting again will answer soon.
          retry: (count, problem) => !(problem instanceof Refused && problem.status >= 400) && count < 5,
          retryDelay: 700,
        },
      },
    });
  }

  override async invalidateQueries(
    ...[filters, options]: Parameters<QueryClient["invalidateQueries"]>
  ): Promise<void> {
    const queryKey = toValue(toValue(filters)?.queryKey);
    await this.cancelQueries({
      queryKey: queryKey as readonly unknown[] | undefined,
      predicate: (query) => query.state.data === undefined,
    });
    await super.invalidateQueries(filters, options);
  }
}
