"use client";
import { Alert, App, Button, Modal, Space } from "antd";
import dayjs from "dayjs";
import { slipWords } from "@/core/mismatch";
import { cardDifferences } from "@/core/callout";
import { jobOf, type Job } from "@/core/job";
import { api, Refused } from "../store/api";
import { useBench } from "../store/benchStore";
import { useJob, type Offered } from "../store/jobStore";
import css from "./Notices.module.css";

/**
 * What must not be overlooked, over the stage: saving that does not go, edits a closed window left, a slip that is
 * being tried, an edit that was not taken.
 */
export function Notices() {
  const offered = useJob((s) => s.offered);
  return (
    <div className={css.strip}>
      <SaveTrouble />
      <Refusal />
      <Trial />
      {offered.map((o) => (
        <LeftBehind key={o.key} offer={o} />
      ))}
    </div>
  );
}

const clock = (ms: number) => dayjs(ms).format("HH:mm:ss");

function SaveTrouble() {
  const save = useJob((s) => s.save);
  const message = useJob((s) => s.message);
  const since = useJob((s) => s.since);
  const again = useJob((s) => s.saveNow);
  if ((save !== "away" && save !== "refused") || since === null) return null;
  return (
    <Alert
      type="error"
      showIcon
      title={`Not saved since ${clock(since)}: ${message}`}
      description="Everything typed is kept in this browser and sent again with growing pauses."
      action={
        <Button size="small" onClick={again}>
          Try now
        </Button>
      }
    />
  );
}

function Refusal() {
  const refusal = useJob((s) => s.refusal);
  const forgive = useJob((s) => s.forgiveRefusal);
  if (!refusal) return null;
  return <Alert type="warning" showIcon title={`Not done: ${refusal}`} closable={{ onClose: forgive }} />;
}

function Trial() {
  const trial = useJob((s) => s.trial);
  const end = useJob((s) => s.endTrial);
  // On the Proof step the finder itself has the two buttons.
  const onProof = useBench((s) => s.step === "proof");
  if (!trial) return null;
  return (
    <Alert
      type="warning"
      showIcon
      data-testid="trial"
      title={`A slip is being tried (${slipWords[trial.kind]}). It is no part of the job until it is kept.`}
      action={
        !onProof && (
          <Space>
            <Button size="small" onClick={() => end("keep")}>
              Keep it
            </Button>
            <Button size="small" onClick={() => end("back")}>
              Put it back
            </Button>
          </Space>
        )
      }
    />
  );
}

/** Edits that a closed window never got saved: shown, and put into the job, made a job of their own, or thrown away. */
function LeftBehind({ offer }: { offer: Offered }) {
  const document = useJob((s) => s.document)!;
  const takeUp = useJob((s) => s.takeUp);
  const letGo = useJob((s) => s.letGo);
  const { message } = App.useApp();
  const copy = async () => {
    try {
      await api.importText(
        JSON.stringify({ ...offer.document, name: `${offer.document!.name} (kept aside)`.slice(0, 120) }),
      );
      letGo(offer);
      void message.success("They are a job of their own on the shelf now", 4);
    } catch (e) {
      void message.error(e instanceof Refused ? e.message : "the server does not answer", 6);
    }
  };
  const { document: their } = offer;
  const fits = offer.fitsOn === document;
  const beside = their ? cardDifferences(jobOf(their), jobOf(document)) : null;
  return (
    <Alert
      type="warning"
      showIcon
      title={offeredWords(offer, fits)}
      description={
        beside ? (
          <div className={css.sides}>
            <Lines title="Only there:" list={beside.onlyFirst} />
            <Lines title="Only here:" list={beside.onlySecond} />
          </div>
        ) : (
          <Lines title="They cannot be placed any more; as they were kept:" list={[rawOf(offer)]} />
        )
      }
      action={
        <Space orientation="vertical" size={4}>
          {offer.document && (
            <Button size="small" type="primary" block onClick={() => takeUp(offer)}>
              {fits ? "Take them up" : "Take that state"}
            </Button>
          )}
          {offer.document && (
            <Button size="small" block onClick={() => void copy()}>
              As a job of its own
            </Button>
          )}
          <Button size="small" block onClick={() => letGo(offer)}>
            Throw away
          </Button>
        </Space>
      }
    />
  );
}

const changes = (n: number) => `${n} change${n === 1 ? "" : "s"}`;

/** What a state that lies beside the job is, and when it came there. */
function offeredWords({ why, at, count }: Offered, fits: boolean): string {
  const when = at ? dayjs(at).format("D MMM HH:mm") : "";
  const last = when && `, the last at ${when}`;
  if (why === "replaced")
    return `Two windows changed this job${when && ` (${when})`}. The state that was not taken is kept here.`;
  if (why === "refused")
    return `The server did not take ${changes(count)}${last}. They are set aside here; everything else is saved.`;
  const apart = fits ? "" : " The job has been changed since, so they do not simply go on top.";
  return `A window that was closed left ${changes(count)} that never reached the server${last}.${apart}`;
}

const rawOf = ({ kept }: Offered): string =>
  "leftover" in kept ? JSON.stringify(kept.leftover.unsent.rest) : "(nothing that can be read)";

function Lines({ title, list }: { title: string; list: string[] }) {
  return (
    <div>
      {title}
      <ul className={css.lines}>
        {list.length ? list.map((l, i) => <li key={i}>{l}</li>) : <li>(nothing that a card shows)</li>}
      </ul>
    </div>
  );
}

/** The job was changed in two windows: both states side by side, and one to choose. */
export function ConflictDialog({ job }: { job: Job }) {
  const conflict = useJob((s) => s.conflict);
  const settle = useJob((s) => s.settle);
  const apart = conflict ? cardDifferences(job, jobOf(conflict.job)) : { onlyFirst: [], onlySecond: [] };
  return (
    <Modal
      open={conflict !== null}
      width={720}
      title="This job was changed in another window"
      closable={false}
      footer={[
        <Button key="t" onClick={() => void settle("theirs")}>
          Take the other window’s job
        </Button>,
        <Button key="m" type="primary" onClick={() => void settle("mine")}>
          Keep what is here
        </Button>,
      ]}
    >
      <p>
        The other window saved revision {conflict?.revision}. Nothing is lost: the state that is not taken is kept
        beside the job, and offered in both windows until somebody puts it back, makes it a job of its own, or throws it
        away.
      </p>
      <div className={css.sides}>
        <Lines title="Only here:" list={apart.onlyFirst} />
        <Lines title="Only there:" list={apart.onlySecond} />
      </div>
    </Modal>
  );
}
