import { z } from "zod";
import { jobSchema } from "@/core/job";

/** The published form of a job document, as JSON Schema. */
export const GET = () => Response.json(z.toJSONSchema(jobSchema, { io: "input", unrepresentable: "any" }));
