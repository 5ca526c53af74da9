// Prints how many figures the tables hold, and how many of them agree with a second, independent source.
import { figuresHeld, figuresSeenTwice, tablePages } from "../src/core/tables";

const seconds = tablePages.flatMap((p) => (p.second ? [p.second.source] : []));
console.log(
  `tables: ${figuresHeld()} figures in ${tablePages.length} tables; ${figuresSeenTwice()} of them with two independent sources (${seconds.join("; ")})`,
);
