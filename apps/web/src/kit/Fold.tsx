import type { ReactNode } from 'react';

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
  return (
    <section className="section">
      <details className="fold" open={open}>
        <summary>
          <h2>{title}</h2>
          {line !== undefined && <span className="soft small figures">{line}</span>}
          <span aria-hidden="true" className="line-turn" />
        </summary>
        <div className="stack fold-inside">{children}</div>
      </details>
    </section>
  );
}
