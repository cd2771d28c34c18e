/** Knot Path's mark: two bights of rope through each other. */
export function Mark() {
  return (
    <svg width={27} height={20} viewBox="0 0 27 20" aria-hidden="true">
      <g fill="none" strokeWidth={2.6} strokeLinecap="round">
        <path
          d="M2 15.5C7 18.5 15.5 17.5 17.2 11.5C18.6 6 14 2 9.6 3.8C5.6 5.6 6 12.6 11 14.6"
          stroke="var(--accent)"
        />
        <path
          d="M25 15.5C21.5 18.2 16.6 17 14 14M11.6 10.4C11.4 5.4 15.6 2 19.6 3.8C23.6 5.8 22.8 12.4 18 14.6"
          stroke="var(--strand-1)"
        />
      </g>
    </svg>
  );
}
