/** Straight lines through what was drawn (x) and what was printed (y). Lengths mm. */

/** The belief about a printer's line before a piece is read. */
export interface LinePrior {
  offset: { mean: number; sd: number };
  scale: { mean: number; sd: number };
  /** Scatter of a size about the line, mm, and how many readings that belief is worth. */
  scatter: { sd: number; worth: number };
}

export interface LineBelief {
  /** mm */
  offset: { mean: number; sd: number };
  scale: { mean: number; sd: number };
  /** Covariance of offset and scale, mm. */
  covariance: number;
  /** Scatter of a size about the line beyond the uncertainty of its reading, mm. */
  scatter: number;
}

/** Rounds of “line, then scatter”; the answer has converged to 1e-6 mm after three. */
const ROUNDS = 6;

/**
 * The line as believed after readings: Gaussian prior times Gaussian likelihood, each point weighted by
 * 1/(scatter² + u²); the scatter is pooled from prior and residuals (Gelman and others, “Bayesian Data
 * Analysis”, ch. 14, from memory). With a flat prior it is the weighted least-squares line; with few points the scale stays
 * the prior's and only the offset is learned. No point gives the prior back.
 * @param points x drawn, y printed, u standard uncertainty of the reading; mm
 */
export function believeLine(
  points: readonly { x: number; y: number; u: number }[],
  prior: LinePrior,
): LineBelief {
  // Centred on the middle size: otherwise offset and scale would be almost the same unknown.
  const middle = points.length > 0 ? points.reduce((sum, p) => sum + p.x, 0) / points.length : 0;
  const [v0, v1] = [prior.offset.sd ** 2, prior.scale.sd ** 2];
  // y = m + k·(x − middle), m = offset + k·middle: the prior of (m, k) follows from that of (offset, k).
  const mPrior = prior.offset.mean + prior.scale.mean * middle;
  const det0 = v0 * v1;
  const p0 = [v1 / det0, (-middle * v1) / det0, (v0 + middle ** 2 * v1) / det0] as const;
  let scatter = prior.scatter.sd;
  let answer = { m: mPrior, k: prior.scale.mean, vm: v0 + middle ** 2 * v1, vk: v1, c: middle * v1 };
  for (let round = 0; round < ROUNDS && points.length > 0; round++) {
    let [a, b, d] = [p0[0], p0[1], p0[2]];
    let r = a * mPrior + b * prior.scale.mean;
    let q = b * mPrior + d * prior.scale.mean;
    for (const { x, y, u } of points) {
      const w = 1 / (scatter ** 2 + u ** 2);
      const dx = x - middle;
      a += w;
      b += w * dx;
      d += w * dx * dx;
      r += w * y;
      q += w * dx * y;
    }
    const det = a * d - b * b;
    const [m, k] = [(d * r - b * q) / det, (a * q - b * r) / det];
    answer = { m, k, vm: d / det, vk: a / det, c: -b / det };
    // Two numbers are estimated from the readings; the readings' own uncertainty is not the printer's scatter.
    const own = points.reduce((sum, p) => sum + (p.y - m - k * (p.x - middle)) ** 2 - p.u ** 2, 0);
    const free = Math.max(0, points.length - 2);
    const { sd, worth } = prior.scatter;
    scatter = free === 0 ? sd : Math.sqrt(Math.max(1e-6, (worth * sd ** 2 + own) / (worth + free)));
  }
  const { m, k, vm, vk, c } = answer;
  return {
    offset: { mean: m - k * middle, sd: Math.sqrt(Math.max(0, vm + middle ** 2 * vk - 2 * middle * c)) },
    scale: { mean: k, sd: Math.sqrt(vk) },
    covariance: c - middle * vk,
    scatter,
  };
}
