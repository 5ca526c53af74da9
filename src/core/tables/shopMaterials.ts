import { z } from "zod";
import { findMaterial } from "./materials";

/** A material of the shop's own: its name, density in g/cm³, and where the figure comes from. */
const shopMaterialSchema = z.strictObject({
  name: z.string().trim().min(1).max(120),
  density: z.number().positive().max(30),
  source: z.string().trim().max(200),
});
export type ShopMaterial = z.infer<typeof shopMaterialSchema>;

const listSchema = z.array(shopMaterialSchema).max(300);
const plainNames = (list: readonly { name: string }[]): string[] => list.map((m) => m.name.trim().toLowerCase());

/** What a shop has kept: a material that the table has learned since stays the shop's own. */
export const keptMaterialsSchema = listSchema;

/**
 * The shop's list as it is to be kept: every name once, none that the table has already.
 * @param kept what is kept now: a name that the table has learned since may stay
 */
export const materialsToKeep = (kept: readonly ShopMaterial[]) =>
  listSchema.superRefine((list, context) => {
    const names = plainNames(list);
    const before = plainNames(kept);
    list.forEach((m, i) => {
      if (names.indexOf(names[i]) < i)
        context.addIssue({ code: "custom", path: [i, "name"], message: `${m.name} is there twice` });
      if (findMaterial(m.name) && !before.includes(names[i]))
        context.addIssue({ code: "custom", path: [i, "name"], message: `${m.name} is in the table already` });
    });
  });
