import { z } from "zod";
import { outlineItem, type OutlineItem } from "./lines/registry";

export { numbersOfItem, outlineForms, readOutlineItem, writeOutlineItem, type OutlineItem } from "./lines/registry";
export type { ItemNumber } from "./lines/common";
export type Walked = Extract<OutlineItem, { item: "start" | "line" | "arc" | "relation" | "dimension" }>;

export const outlineSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().min(1).max(120),
  items: z.array(outlineItem).max(5000),
});
export type OutlineText = z.infer<typeof outlineSchema>;

/** Names of the outlines an item is made with. */
export const outlinesUsed = (i: OutlineItem): string[] =>
  "outline" in i ? [i.outline] : "against" in i && i.against !== undefined ? [i.against] : [];
/** The item with another name for an outline it is made with. */
export function renamedIn(i: OutlineItem, same: (name: string) => boolean, name: string): void {
  if ("outline" in i && same(i.outline)) i.outline = name;
  if ("against" in i && i.against !== undefined && same(i.against)) i.against = name;
}
