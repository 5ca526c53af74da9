import { rowBodySchema, type RowBody } from "./registry";

/** A row with some of its fields otherwise; null where it would be no row. A field that is undefined goes. */
export function changedRow(body: RowBody, change: Record<string, unknown>): RowBody | null {
  const whole = Object.entries({ ...body, ...change }).filter(([, v]) => v !== undefined);
  const read = rowBodySchema.safeParse(Object.fromEntries(whole));
  return read.success ? read.data : null;
}
