import type { ReactNode } from "react";
import css from "./Section.module.css";

/** A ruled part of a card with its heading. */
export function Section({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <section className={css.section}>
      <h2>
        <span>{title}</span>
        <span className={css.aside}>{aside}</span>
      </h2>
      {children}
    </section>
  );
}
export const fieldsClass = css.fields;
export const Figure = ({ label, children, red }: { label: string; children: ReactNode; red?: boolean }) => (
  <div className={css.figure}>
    <span className="lab">{label}</span>
    <b className={red ? "red num" : "num"}>{children}</b>
  </div>
);
export const Body = ({ children }: { children: ReactNode }) => <div className={css.body}>{children}</div>;
