import Link from "next/link";
import css from "./Mark.module.css";

const Drawn = () => (
  <>
    <i />
    SGORBIA
  </>
);

/** The program's mark; away from the shelf it leads back there. */
export const Mark = ({ leadsBack }: { leadsBack?: boolean }) =>
  leadsBack ? (
    <Link className={css.mark} href="/" title="back to the shelf">
      <Drawn />
    </Link>
  ) : (
    <span className={css.mark}>
      <Drawn />
    </span>
  );
