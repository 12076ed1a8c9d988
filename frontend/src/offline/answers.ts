/** Which of the server's answers are kept for when it is out of reach, and how one that was kept is told. */

/** The questions pages ask to show what there is: what was read last stays readable. */
const READ = new RegExp(
  "^/api/(projects(/\\d+(/(milling|milling-settings|layout|needs|account|checks|schools|sheets|drawings" +
    "|ways|offers|offers/words|workshop))?)?" +
    "|layouts/\\d+/(days|chalk|reasons)|workshops(/\\d+(/(learned|books))?)?" +
    "|woods|patterns|instruments|stock|suppliers)$",
);

/** A header of answers that were kept. */
export const KEPT = "x-kept";

export function isAnswer(path: string): boolean {
  return READ.test(path);
}

/** Says on an answer that it is not the server's of now. */
export function labelled(old: Response): Response {
  const headers = new Headers(old.headers);
  headers.set(KEPT, "1");
  return new Response(old.body, { status: old.status, headers });
}
