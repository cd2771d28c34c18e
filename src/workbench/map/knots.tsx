/** The root's knot and the standby's untied loop, drawn for Knot Path. 24 by 16 units. */
interface Props {
  readonly colour: string;
  readonly title?: string;
}

/** A tied knot: two interlocked bights. */
export function Knot({ colour, title }: Props) {
  return (
    <svg width={24} height={16} viewBox="0 0 24 16" role="img" aria-label={title ?? 'root'}>
      <g fill="none" stroke={colour} strokeWidth={2.3} strokeLinecap="round">
        <path d="M1.5 12.5C5 15 12 14.5 14.5 9.5C16.5 5 12.5 1.5 9 3C5.5 4.5 5.5 10 9.5 12" />
        <path d="M22.5 12.5C19 15 14.5 14 12.2 11.4M10.6 8.4C10.5 4.5 14 1.4 17.5 3C21 4.8 20.2 10.2 15.8 11.9" />
      </g>
    </svg>
  );
}

/** A rope that crosses itself once and would fall open when pulled. */
export function Loop({ colour, title }: Props) {
  return (
    <svg width={24} height={16} viewBox="0 0 24 16" role="img" aria-label={title ?? 'standby root'}>
      <path
        d="M2 13.5C9 13.5 17.5 10 15.5 4.8C14.2 1.8 9.8 1.8 8.5 4.8C6.5 10 15 13.5 22 13.5"
        fill="none"
        stroke={colour}
        strokeWidth={1.7}
        strokeLinecap="round"
      />
    </svg>
  );
}
