"use client";
import { App, Button, Modal, Popconfirm } from "antd";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import dayjs from "dayjs";
import { useState } from "react";
import type { ShelfCopy } from "@/core/job";
import { RuledTable } from "../fields/RuledTable";
import { api, Refused } from "../store/api";
import css from "./Shelf.module.css";

const said = (e: unknown): string => (e instanceof Refused ? e.message : "the server does not answer");

/** What is done with copies: one is made, or put back; what is at work is named by `busy`. */
function useCopies() {
  const client = useQueryClient();
  const { message } = App.useApp();
  const [busy, setBusy] = useState("");
  const during = async (what: string, work: () => Promise<string>) => {
    setBusy(what);
    try {
      void message.success(await work(), 5);
      await client.invalidateQueries();
    } catch (e) {
      void message.error(said(e), 8);
    }
    setBusy("");
  };
  const make = () => during("make", async () => `Kept: ${when(await api.makeCopy())}`);
  const putBack = (copy: ShelfCopy) =>
    during(copy.name, async () => {
      const { kept: before } = await api.putBack(copy.name);
      return `The shelf is as it was on ${when(copy)}. What was there until now is kept too, ${when(before)}.`;
    });
  return { busy, make, putBack };
}

/** The dated copies of the whole shelf: made now, or put back in its place. */
export function ShelfCopies({ close }: { close: () => void }) {
  const kept = useQuery({ queryKey: ["copies"], queryFn: api.copies });
  const { busy, make, putBack } = useCopies();
  const columns = [
    { title: "made", render: (_: unknown, c: ShelfCopy) => when(c) },
    { title: "why", render: (_: unknown, c: ShelfCopy) => c.why },
    { title: "size", render: (_: unknown, c: ShelfCopy) => `${(c.size / 1e6).toFixed(2)} MB` },
    {
      title: "",
      render: (_: unknown, c: ShelfCopy) => (
        <Popconfirm
          title="Put this copy in place of the whole shelf?"
          description="A copy of what is there now is made first."
          okText="Put it back"
          onConfirm={() => putBack(c)}
        >
          <Button size="small" disabled={busy !== ""} loading={busy === c.name} aria-label={`Put back ${when(c)}`}>
            Put back
          </Button>
        </Popconfirm>
      ),
    },
  ];
  return (
    <Modal open title="Copies of the shelf" onCancel={close} footer={null} width={620}>
      <div className={css.form}>
        <p className="soft">
          Jobs, their log, prints and the shop’s figures, once a day while Sgorbia runs and before every change of its
          tables; the last ten stay. They lie beside the data folder, on the same disk: carry one elsewhere now and
          then.
        </p>
        {kept.isError && <p className="red">{said(kept.error)}</p>}
        {kept.data?.copies.length === 0 && <p>None yet.</p>}
        {!!kept.data?.copies.length && (
          <RuledTable label="Copies" columns={columns} dataSource={kept.data.copies} rowKey="name" />
        )}
        <span className={css.where}>{kept.data?.folder}</span>
        <div className={css.actions}>
          <Button type="primary" loading={busy === "make"} disabled={busy !== ""} onClick={() => void make()}>
            Make a copy now
          </Button>
        </div>
      </div>
    </Modal>
  );
}

const when = (copy: ShelfCopy): string => dayjs(copy.at).format("D MMM YYYY HH:mm:ss");
