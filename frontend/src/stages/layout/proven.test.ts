import { expect, it } from "vitest";
import { provenBound } from "./proven";

const searched = (lower_bound: number | null, stale = false) => ({ lower_bound, stale });

it("keeps what an earlier search of the same job has proved while another goes on", () => {
  expect(provenBound(searched(246), searched(317))).toBe(317);
  expect(provenBound(searched(null), searched(317))).toBe(317);
  expect(provenBound(searched(320), searched(317))).toBe(320);
});
it("is not that of another job", () => {
  expect(provenBound(searched(246), searched(317, true))).toBe(246);
  expect(provenBound(searched(246, true), searched(317))).toBe(246);
});
it("is nothing where nothing was searched", () => {
  expect(provenBound(null, searched(317))).toBeNull();
  expect(provenBound(searched(null), null)).toBeNull();
});
