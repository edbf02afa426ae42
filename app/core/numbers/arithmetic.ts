/** Sums that are typed where a number is asked for: "1920/2", "540+20", or "+20" for twenty more than there is. */

type Operator = "+" | "-" | "*" | "/";

const WORK: Record<Operator, (a: number, b: number) => number> = {
  "+": (a, b) => a + b,
  "-": (a, b) => a - b,
  "*": (a, b) => a * b,
  "/": (a, b) => a / b,
};

const NUMBER = String.raw`\d+(?:[.,]\d+)?|[.,]\d+`;
const SUM = new RegExp(String.raw`^\s*([-+*/])?\s*(${NUMBER})((?:\s*[-+*/]\s*(?:${NUMBER}))*)\s*$`);
const FURTHER = new RegExp(String.raw`([-+*/])\s*(${NUMBER})`, "g");

const numberOf = (text: string): number => Number(text.replace(",", "."));

/** Products before sums. */
function total(first: number, rest: readonly { operator: Operator; value: number }[]): number {
  const terms = [first];
  for (const { operator, value } of rest) {
    if (operator === "*" || operator === "/") terms.push(WORK[operator](terms.pop()!, value));
    else terms.push(operator === "-" ? -value : value);
  }
  return terms.reduce((sum, term) => sum + term, 0);
}

/**
 * What a text comes to.
 *
 * @param present the number that there is: a text that begins with +, * or / changes it, and so does one with - where it
 * cannot be less than 0
 * @param canBeNegative whether "-20" is a number of its own
 * @returns null if it is no sum
 */
export function valueOf(text: string, present: number, canBeNegative: boolean): number | null {
  const match = SUM.exec(text);
  if (!match) return null;
  const [, sign, first, more = ""] = match;
  const further = [...more.matchAll(FURTHER)].map(([, operator, value]) => ({
    operator: operator as Operator,
    value: numberOf(value!),
  }));
  const begins = sign as Operator | undefined;
  const isNegative = begins === "-" && canBeNegative;
  const value =
    begins && !isNegative
      ? total(present, [{ operator: begins, value: numberOf(first!) }, ...further])
      : total(isNegative ? -numberOf(first!) : numberOf(first!), further);
  return Number.isFinite(value) ? value : null;
}
