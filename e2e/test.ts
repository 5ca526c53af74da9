import { test as base } from "@playwright/test";
import { serverOf } from "./servers";

export { expect } from "@playwright/test";
export type { Locator, Page } from "@playwright/test";

/** A test against its worker's own server. */
export const test = base.extend<{ data: string }>({
  baseURL: async ({}, use, info) => use(serverOf(info.parallelIndex).url),
  data: async ({}, use, info) => use(serverOf(info.parallelIndex).data),
});
