/** A refusal of the server, in its own sentence. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly what: string,
    readonly where = "",
  ) {
    super(where && where !== "$" ? `${what} (${where})` : what);
  }
}
