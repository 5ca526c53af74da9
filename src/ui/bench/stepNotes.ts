import { partInStock } from "@/core/findings/stockRules";
import { isAboutHolding } from "@/core/findings/holding";
import { releaseState, type Job } from "@/core/job";
import type { Finding } from "@/core/findings";
import type { Step } from "../store/benchStore";

/** What stands under a step's name: how far it is, in the fewest words. */
export interface StepNote {
  text: string;
  red?: boolean;
}

/** What a note is made from. */
interface Standing {
  job: Job;
  evaluation: Figures | null;
  paths: number;
}

/** What the notes read of an evaluation. */
interface Figures {
  findings: Pick<Finding, "rule" | "severity" | "waived">[];
  stockProblem: { message: string } | null;
  solved: { rows: { state: string }[] };
  ledger: { state: string }[];
  checks: { agrees: boolean }[];
}

const NOTHING: StepNote = { text: "—" };
const counted = (n: number, word: string): string => `${n} ${word}${n === 1 ? "" : "s"}`;
const openFindings = ({ evaluation }: Standing) => evaluation?.findings.filter((f) => !f.waived) ?? [];

const notes: Record<Step, (standing: Standing) => StepNote> = {
  print: ({ job }) => (job.balloons.length ? { text: counted(job.balloons.length, "balloon") } : NOTHING),
  stock(standing) {
    const { job, evaluation } = standing;
    const sticksOut = openFindings(standing).some((f) => f.rule === partInStock && f.severity === "stop");
    if (sticksOut || evaluation?.stockProblem) return { text: "too small", red: true };
    return job.stock ? { text: `1 ${job.stock.shape}` } : NOTHING;
  },
  shape(standing) {
    const failed = standing.evaluation?.solved.rows.filter((r) => r.state === "failed").length ?? 0;
    const own = openFindings(standing).filter((f) => !isAboutHolding(f.rule) && f.rule !== partInStock);
    const remarks = own.length + failed;
    return remarks
      ? { text: counted(remarks, "remark"), red: true }
      : { text: counted(standing.job.rows.length, "row") };
  },
  hold(standing) {
    const remarks = openFindings(standing).filter((f) => isAboutHolding(f.rule)).length;
    if (remarks) return { text: counted(remarks, "remark"), red: true };
    const { hold, setups = [] } = standing.job;
    if (setups.length > 1) return { text: `${setups.length} setups` };
    if (hold) return { text: "vise" };
    return setups.length ? { text: "1 setup" } : NOTHING;
  },
  paths: ({ paths }) => (paths ? { text: counted(paths, "path") } : NOTHING),
  proof({ evaluation }) {
    const { ledger = [], checks = [] } = evaluation ?? {};
    const proved = ledger.filter((l) => l.state === "proved").length;
    const off = ledger.filter((l) => l.state === "off").length + checks.filter((c) => !c.agrees).length;
    if (!ledger.length) return off ? { text: `${off} off`, red: true } : NOTHING;
    return off
      ? { text: `${proved}/${ledger.length} ✗${off} off`, red: true }
      : { text: `${proved} / ${ledger.length}` };
  },
  release({ job }) {
    const { state } = releaseState(job);
    return { text: releaseWords[state], red: state === "changed" };
  },
};

const releaseWords = { draft: "draft", earlier: "draft", released: "released", changed: "changed since" } as const;

export const stepNote = (step: Step, standing: Standing): StepNote => notes[step](standing);
