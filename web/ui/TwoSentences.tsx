/** The whole of the access model, said wherever people decide something. */
export const TwoSentences = () => (
  <p className="quiet text-sm">
    Grants add up. Limits cap. Breaking inheritance stops grants from above; limits always flow down.
  </p>
)
