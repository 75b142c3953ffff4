import { memo, useState, type ReactNode } from 'react';
import { useSession } from '../state/session.js';

/** What is folded away is not drawn again at each step of a drag. */
const Inside = memo(
  function Inside({ children }: { readonly still: boolean; readonly children: ReactNode }) {
    return <div className="stack fold-inside">{children}</div>;
  },
  (_before, next) => next.still,
);

/** A section that opens: its title, and what it comes to in a few words, stand in one line. */
export function Fold({
  title,
  line,
  open = false,
  children,
}: {
  readonly title: string;
  readonly line?: ReactNode;
  /** Open from the start: what is wrong in it wants somebody. */
  readonly open?: boolean;
  readonly children: ReactNode;
}) {
  const [unfolded, setUnfolded] = useState(open);
  const dragged = useSession((session) => session.preview !== null);
  return (
    <section className="section">
      <details className="fold" open={open} onToggle={(event) => setUnfolded(event.currentTarget.open)}>
        <summary>
          <h2>{title}</h2>
          {line !== undefined && <span className="soft small figures">{line}</span>}
          <span aria-hidden="true" className="line-turn" />
        </summary>
        <Inside still={dragged && !unfolded}>{children}</Inside>
      </details>
    </section>
  );
}
