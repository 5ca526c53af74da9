// A server with a long row in its kernel's hands: what a test kills. It tells the kernel's process.
import { readCard } from "@/core/callout";
import { noSettings } from "@/core/tables";
import { askKernelHost } from "@/server/kernelDesk";

const rows = Array.from({ length: 400 }, (_, i) => `CUT POCKET 3 X 3 R1 DEEP ${1 + i / 100} AT ${(i - 200) / 4},0`);
const { document } = readCard(`UNIT mm\nLEAVE BLOCK 120 X 40 X 20\n${rows.join("\n")}`);
void askKernelHost({ want: "summary", job: document, files: {}, shop: noSettings });
const { sgorbiaKernelDesk } = globalThis as { sgorbiaKernelDesk?: { child: { pid: number } } };
console.log(sgorbiaKernelDesk!.child.pid);
setInterval(() => undefined, 1000);
