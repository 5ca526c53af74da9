"use client";
import { Button, Result } from "antd";

/** Whatever goes wrong on a page: what was typed is in the browser and comes back with it. */
export default function PageError({ reset }: { reset: () => void }) {
  return (
    <Result
      status="warning"
      title="This page could not be shown"
      subTitle="Nothing of the job is lost: what was typed and not yet saved is kept in this browser."
      extra={[
        <Button key="again" type="primary" onClick={reset}>
          try again
        </Button>,
        <Button key="shelf" href="/">
          back to the shelf
        </Button>,
      ]}
    />
  );
}
