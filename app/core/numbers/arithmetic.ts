/** Sums typed into number fields: "1920/2", "540+20", or "+20" to add twenty to the present value. */

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

/** Multiplication and division before addition and subtraction. */
function total(first: number, rest: readonly { operator: Operator; value: number }[]): number {
  const terms = [first];
  for (const { operator, value } of rest) {
    if (operator === "*" || operator === "/") terms.push(WORK[operator](terms.pop()!, value));
    else terms.push(operator === "-" ? -value : value);
  }
  return terms.reduce((sum, term) => sum + term, 0);
}

/**
 * Value of an expression.
 * @param present the field's number: a text that begins with +, * or / changes it, and so does one with - where it cannot
 *   be negative
 * @param canBeNegative whether "-20" is a number of its own
 * @returns null if it is no valid expression
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
