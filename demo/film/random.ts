/** Repeatable randomness: the film must come out the same each time it is made. */

/** mulberry32: a small generator with a full 2^32 period. Returns numbers in [0, 1). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const fade = (t: number) => t * t * (3 - 2 * t);

/** Value noise that repeats every `period` cells, so that textures can be laid side by side. */
export function tilingNoise(seed: number, period: number): (x: number, y: number) => number {
  const random = seeded(seed);
  const lattice = Float32Array.from({ length: period * period }, random);
  return (x, y) => {
    const column = Math.floor(x);
    const row = Math.floor(y);
    const fx = fade(x - column);
    const fy = fade(y - row);
    const x0 = ((column % period) + period) % period;
    const y0 = (((row % period) + period) % period) * period;
    const x1 = (x0 + 1) % period;
    const y1 = (y0 + period) % (period * period);
    const top = lattice[y0 + x0]! + (lattice[y0 + x1]! - lattice[y0 + x0]!) * fx;
    const bottom = lattice[y1 + x0]! + (lattice[y1 + x1]! - lattice[y1 + x0]!) * fx;
    return top + (bottom - top) * fy;
  };
}

/** Sum of octaves of tiling noise, in [0, 1]; repeats over the unit square. */
export function fractal(seed: number, cells: number, octaves: number): (u: number, v: number) => number {
  const layers = Array.from({ length: octaves }, (_, k) => ({
    noise: tilingNoise(seed + k, cells << k),
    scale: cells << k,
  }));
  return (u, v) => {
    let sum = 0;
    let total = 0;
    let weight = 1;
    for (const { noise, scale } of layers) {
      sum += weight * noise(u * scale, v * scale);
      total += weight;
      weight /= 2;
    }
    return sum / total;
  };
}

/** 0 before `from`, 1 after `to`, eased between. */
export function ramp(from: number, to: number, at: number): number {
  const t = Math.min(1, Math.max(0, (at - from) / (to - from)));
  return t * t * (3 - 2 * t);
}

/** A slow wander in about [-1, 1] for hands that hold cameras and bodies that do not stand quite still. */
export function wander(time: number, seed: number): number {
  return (
    Math.sin(time * 1.31 + seed * 2.1) * 0.5 +
    Math.sin(time * 2.77 + seed * 5.3) * 0.3 +
    Math.sin(time * 5.9 + seed) * 0.2
  );
}
