"use client";
import { Button, Result } from "antd";

export default function NotFound() {
  return (
    <Result
      status="404"
      title="There is no such page"
      subTitle="A job that was deleted can be brought back from the shelf for as long as its notice stands there."
      extra={
        <Button type="primary" href="/">
          to the shelf
        </Button>
      }
    />
  );
}
