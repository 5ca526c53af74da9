import { test as base } from "@playwright/test";
import { serverOf } from "./servers";

export { expect } from "@playwright/test";
export type { Locator, Page } from "@playwright/test";

/** A test against its worker's own server. */
export const test = base.extend<{ data: string }>({
  // eslint-disable-next-line no-empty-pattern
  baseURL: async ({}, use, info) => use(serverOf(info.parallelIndex).url),
  // eslint-disable-next-line no-empty-pattern
  data: async ({}, use, info) => use(serverOf(info.parallelIndex).data),
});
