/** Where inheritance is broken: a band from above that ends, a gap, and another that begins below it. */
export const BreakSign = () => (
  <svg
    className="shrink-0 text-error"
    width="9"
    height="18"
    viewBox="0 0 9 18"
    role="img"
    aria-label="inheritance is broken"
  >
    <path d="M0 0h9v3l-4.5 2.5L0 3z" fill="currentColor" opacity="0.45" />
    <path d="M0 10.5L4.5 8 9 10.5V18H0z" fill="currentColor" />
  </svg>
)
