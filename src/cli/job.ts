import { cwd, env, exit } from "node:process";
import { command } from "./command";
import { aloud } from "./say";

/** The headless command as it is called: `npm run -s job -- check FILE`. */
command(process.argv.slice(2), env.SGORBIA_CWD ?? cwd(), aloud).then(
  (code) => exit(code),
  (e) => {
    aloud.error(e instanceof Error ? e.message : String(e));
    exit(3);
  },
);
