/** Maps evidence, 0 or more, to a strength that is 0.5 where it is `even` and tends to 1. */
export const strengthOf = (evidence: number, even: number): number =>
  evidence <= 0 ? 0 : evidence / (evidence + even);
