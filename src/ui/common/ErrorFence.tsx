"use client";
import { Button, Result } from "antd";
import { Component, type ReactNode } from "react";

interface Props {
  /** What stands behind the fence, in words: "the stage". */
  what: string;
  children: ReactNode;
}

/** Keeps what goes wrong in one part of the bench from taking the rest along; what was typed stays. */
export class ErrorFence extends Component<Props, { failed: boolean }> {
  state = { failed: false };
  static getDerivedStateFromError() {
    return { failed: true };
  }
  render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Result
        status="warning"
        title={`${this.props.what} could not be drawn`}
        subTitle="Nothing of the job is lost: everything typed is kept and saved."
        extra={<Button onClick={() => this.setState({ failed: false })}>draw it again</Button>}
      />
    );
  }
}
