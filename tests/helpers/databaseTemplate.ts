import { tmpdir } from "node:os";
import path from "node:path";
import manifest from "../../package.json" with { type: "json" };

/** A database's folder as it is made the first time: that takes seconds, and every shelf of a test begins so. */
export const databaseTemplate = path.join(
  tmpdir(),
  `sgorbia-database-${manifest.dependencies["@electric-sql/pglite"].replace(/\W/g, "")}`,
);
