import type { Page } from "./test";

/** What is wrong with a screen for somebody who reads it large, hits it with a thumb, or goes through it by keyboard. */
export interface Faults {
  small: string[];
  targets: string[];
  cutOff: string[];
  sideways: string[];
  names: string[];
  headings: string[];
}

/**
 * Walks everything that is shown: text of at least 12 px, targets of at least 24 px (WCAG 2.2, 2.5.8: those in a
 * sentence, and those with room round them, are let off), nothing cut off, nothing wider than the window, no two
 * controls of one name, one main heading.
 */
export const walk = (page: Page): Promise<Faults> =>
  page.evaluate(() => {
    const faults: Faults = { small: [], targets: [], cutOff: [], sideways: [], names: [], headings: [] };
    const all = [...document.body.querySelectorAll<HTMLElement>("*")];
    const isShown = (e: Element) =>
      e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) &&
      !e.closest(".sr, .skip, [aria-hidden=true]");
    /** A row is one line until it is opened, and its name says all of it. */
    const isClosedLine = (e: Element) => {
      const row = e.closest("[data-row]");
      return row !== null && getComputedStyle(e).textOverflow === "ellipsis";
    };
    const isInClosedLine = (e: Element) => {
      for (let p: Element | null = e; p && !p.matches("[data-row]"); p = p.parentElement)
        if (isClosedLine(p)) return true;
      return false;
    };
    const ownText = (e: Element) =>
      [...e.childNodes]
        .filter((n) => n.nodeType === Node.TEXT_NODE)
        .map((n) => n.textContent?.trim())
        .join(" ")
        .trim();
    const tell = (e: Element) =>
      `<${e.tagName.toLowerCase()} ${typeof e.className === "string" ? e.className.slice(0, 40) : ""}> ${(e.getAttribute("aria-label") ?? e.textContent ?? "").trim().slice(0, 40)}`;
    for (const e of all) {
      if (!isShown(e)) continue;
      const style = getComputedStyle(e);
      const text = ownText(e);
      // A drawing's own units are not the screen's: what its letters are high is.
      const high = e instanceof SVGElement ? e.getBoundingClientRect().height / 1.1 : parseFloat(style.fontSize);
      if (text && high < 12) faults.small.push(`${style.fontSize} ${tell(e)}`);
      const hides = (o: string) => o === "hidden" || o === "clip";
      if (text && e.clientWidth > 0 && hides(style.overflowX) && !isClosedLine(e) && e.scrollWidth > e.clientWidth + 1)
        faults.cutOff.push(`${e.scrollWidth - e.clientWidth} px ${tell(e)}`);
      if (text && e.clientHeight > 0 && hides(style.overflowY) && e.scrollHeight > e.clientHeight + 3)
        faults.cutOff.push(`${e.scrollHeight - e.clientHeight} px high ${tell(e)}`);
      const box = e.getBoundingClientRect();
      if (text && box.right > innerWidth + 1 && !isInClosedLine(e)) faults.sideways.push(tell(e));
    }
    const controls = all.filter(
      (e) =>
        isShown(e) &&
        e.matches("button, input, select, textarea, a[href], [role=button], [role=combobox], [role=slider]"),
    );
    const targetOf = (e: HTMLElement) =>
      e.closest<HTMLElement>(
        ".ant-select, .ant-checkbox-wrapper, .ant-radio-wrapper, .ant-segmented-item, .ant-input-affix-wrapper",
      ) ?? e;
    const boxes = controls.map((e) => ({ e, box: targetOf(e).getBoundingClientRect() }));
    for (const { e, box } of boxes) {
      if (box.width >= 23.5 && box.height >= 23.5) continue;
      if (!box.width || e.closest("p, li, td, .ant-slider, [data-testid=print-picture]")) continue;
      const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
      const crowded = boxes.some(
        (o) =>
          targetOf(o.e) !== targetOf(e) &&
          !o.e.contains(e) &&
          !e.contains(o.e) &&
          middle.x + 12 > o.box.left &&
          middle.x - 12 < o.box.right &&
          middle.y + 12 > o.box.top &&
          middle.y - 12 < o.box.bottom,
      );
      if (crowded) faults.targets.push(`${Math.round(box.width)} x ${Math.round(box.height)} ${tell(e)}`);
    }
    const nameOf = (e: HTMLElement) =>
      (
        e.getAttribute("aria-label") ??
        [...((e as HTMLInputElement).labels ?? [])].map((l) => l.textContent).join(" ") ??
        ""
      ).trim() ||
      (e.textContent ?? "").trim() ||
      e.title;
    const seen = new Map<string, number>();
    for (const e of controls) {
      const name = nameOf(e);
      if (!name) faults.names.push(`no name: ${tell(e)}`);
      // The same thing may be gone to from two places.
      else if (!e.matches("a[href]")) seen.set(name, (seen.get(name) ?? 0) + 1);
    }
    for (const [name, n] of seen) if (n > 1) faults.names.push(`${n} times: ${name.slice(0, 60)}`);
    const mains = document.querySelectorAll("h1").length;
    if (mains !== 1) faults.headings.push(`${mains} main headings`);
    if (document.documentElement.scrollWidth > innerWidth + 1)
      faults.sideways.push(`the page: ${document.documentElement.scrollWidth} of ${innerWidth} px`);
    return faults;
  });
