"use client";
import { Alert } from "antd";
import type { PathFile } from "@/core/paths/file";

/**
 * What the file of machine words will not hold, before anybody asks for it: rows left out, words still needed, or
 * why there is no file at all.
 */
export function WordsFile({ file }: { file: PathFile }) {
  const leftOut = file.leftOut.map((l) => `row ${l.row}${l.what ? `, its ${l.what}` : ""}: ${l.why}`);
  return (
    <div data-testid="words-file">
      {file.refused.length > 0 && (
        <Alert banner type="error" title="No RS-274 words are written" description={<List of={file.refused} />} />
      )}
      <Alert
        banner
        type="warning"
        title={leftOut.length ? "Not in the RS-274 words" : "Every row is in the RS-274 words"}
        description={
          <>
            <List of={leftOut} />
            The machine still needs: {file.needs.join(", ")}.
          </>
        }
      />
    </div>
  );
}

const List = ({ of }: { of: string[] }) =>
  of.length ? (
    <ul style={{ margin: 0, paddingLeft: 16, fontSize: 13, lineHeight: "17px" }}>
      {of.map((t) => (
        <li key={t}>{t}</li>
      ))}
    </ul>
  ) : null;

/** Why no file of words can be written; undefined where it can, or nobody knows yet. */
export const noWords = (file: PathFile | undefined): string | undefined =>
  file?.refused.length ? `no file is written: ${file.refused.join("; ")}` : undefined;
