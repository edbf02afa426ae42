import loadHighs from "highs";
import { type PiecewiseLinearProgram, weightAt } from "~/core/path/piecewise-linear-program";

/** The optimum of a program by a general solver of linear programs, as the reference; and how long it took. */
export async function referenceOptimum({
  size,
  terms,
  fixed,
}: PiecewiseLinearProgram): Promise<{ objective: number; milliseconds: number }> {
  const cost: string[] = [];
  const rows: string[] = [];
  const bounds = Array.from({ length: size }, (_, i) =>
    fixed.has(i) ? ` x${i} = ${fixed.get(i)}` : ` -inf <= x${i} <= inf`,
  );
  terms.forEach(({ stencil, first, lower, upper, below, above }, k) => {
    for (let r = 0; r < lower.length; r++) {
      const form = stencil.map((c, j) => `${c < 0 ? "-" : "+"} ${Math.abs(c)} x${first + r + j}`).join(" ");
      const side = (weight: number, sign: string, relation: string, value: number, name: string) => {
        if (weight === 0 || Number.isNaN(value)) return;
        const soft = Number.isFinite(weight);
        rows.push(` ${name}: ${form}${soft ? ` ${sign} s${name}` : ""} ${relation} ${value}`);
        if (soft) cost.push(`${weight} s${name}`);
      };
      side(weightAt(above, r), "-", "<=", upper[r]!, `u${k}_${r}`);
      side(weightAt(below, r), "+", ">=", lower[r]!, `l${k}_${r}`);
    }
  });
  const highs = await loadHighs();
  const text = `Minimize\n obj: ${cost.join(" + ")}\nSubject To\n${rows.join("\n")}\nBounds\n${bounds.join("\n")}\nEnd\n`;
  const started = performance.now();
  const solution = highs.solve(text);
  if (solution.Status !== "Optimal") throw new Error(`the reference is ${solution.Status}`);
  return { objective: solution.ObjectiveValue, milliseconds: performance.now() - started };
}
