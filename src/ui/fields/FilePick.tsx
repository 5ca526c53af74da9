"use client";
import { Button, Upload, type ButtonProps } from "antd";
import type { ReactNode } from "react";

interface Props extends Pick<ButtonProps, "size" | "disabled" | "title"> {
  /** What the file is, for those who do not see the button. */
  label: string;
  accept: string;
  pick: (file: File) => void;
  children: ReactNode;
}

/** A button that asks for a file; a file dropped on it is taken too. */
export function FilePick({ label, accept, pick, children, ...button }: Props) {
  return (
    <Upload
      aria-label={label}
      accept={accept}
      showUploadList={false}
      disabled={button.disabled}
      beforeUpload={(file) => {
        pick(file);
        return Upload.LIST_IGNORE;
      }}
    >
      <Button {...button}>{children}</Button>
    </Upload>
  );
}
