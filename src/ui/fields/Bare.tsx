"use client";
import { Button, type ButtonProps } from "antd";

/** A button that looks like what it holds: a line of a list, a word, a little cross. */
export function Bare({ className, ...rest }: ButtonProps) {
  return <Button type="text" {...rest} className={`bare ${className ?? ""}`} />;
}
