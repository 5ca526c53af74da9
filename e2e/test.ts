import { test as base, type BrowserContext } from "@playwright/test";
import { serverOf } from "./servers";

export { expect } from "@playwright/test";
export type { Locator, Page } from "@playwright/test";

/**
 * A test against its worker's own server. The browser is kept warm: all tests of a worker share its cache of the page's
 * and the kernel's code, and nothing else that a page could have left there.
 */
export const test = base.extend<{ data: string }, { warm: BrowserContext }>({
  baseURL: async ({}, use, info) => use(serverOf(info.parallelIndex).url),
  data: async ({}, use, info) => use(serverOf(info.parallelIndex).data),
  warm: [
    async ({ browser }, use, { parallelIndex, project }) => {
      const { viewport, acceptDownloads, permissions } = project.use;
      const context = await browser.newContext({
        baseURL: serverOf(parallelIndex).url,
        viewport,
        acceptDownloads,
        permissions,
      });
      await use(context);
      await context.close();
    },
    { scope: "worker" },
  ],
  context: async ({ warm, baseURL }, use) => {
    await use(warm);
    await warm.unrouteAll({ behavior: "ignoreErrors" });
    const last = await warm.newPage();
    for (const page of warm.pages()) if (page !== last) await page.close();
    const cdp = await warm.newCDPSession(last);
    await cdp.send("Storage.clearDataForOrigin", {
      origin: baseURL!,
      storageTypes: "cookies,local_storage,indexeddb,service_workers",
    });
    await last.close();
  },
});
