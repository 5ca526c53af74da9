// Writes docs/job.schema.json from the document's schema: node --import tsx scripts/schema.mts
import { writeFileSync } from "node:fs";
import { z } from "zod";
import { jobSchema } from "../src/core/job";

writeFileSync(
  new URL("../docs/job.schema.json", import.meta.url),
  JSON.stringify(z.toJSONSchema(jobSchema, { io: "input", unrepresentable: "any" }), null, 1) + "\n",
);
