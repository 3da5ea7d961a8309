/**
 * A flame is never alone: while one burns, one pair of hands has no long step elsewhere. A pour at another station counts
 * as near, since a person who pours can see the flame.
 */
import type { CardStep } from '../../recipe';
import { type PlanBrew, type PlanProblem, stepKey } from '../solver';

/** An attended step elsewhere that takes longer than this leaves a flame alone, seconds. */
const LONG_S = 30;
/** Who stays by a flame is a tool that both it and the long steps hold; one for each flame that can burn at once. */
const KEEPER = 'keeper of flame ';
export const isFlameKeeper = (tool: string): boolean => tool.startsWith(KEEPER);

/**
 * Adds tools to a problem that keep long steps and flames apart. There are as many flame keepers as pairs of hands: a
 * flame holds one of them, and a long step holds one for every flame.
 * @param stepsOf the steps of each brew as they stand on its card
 */
export function keepFlames(problem: PlanProblem, stepsOf: ReadonlyMap<string, readonly CardStep[]>): void {
  const lit = problem.brews.filter(({ holds }) => holds.some(isBurner));
  if (lit.length === 0) return;
  // Flames that burn already are kept by different keepers; the rest take them in turn.
  const inTurn = lit.toSorted((a, b) => Number(burns(problem, b)) - Number(burns(problem, a)));
  const keepers = Math.max(1, Math.min(problem.tools['burner'] ?? 1, lit.length));
  const names = Array.from({ length: keepers }, (_, index) => `${KEEPER}${index + 1}`);
  for (const name of names) problem.tools[name] = problem.hands;
  for (const brew of problem.brews) {
    const own = inTurn.indexOf(brew);
    const flame = brew.holds.find(isBurner);
    if (flame) brew.holds.push({ ...flame, tool: names[own % keepers]! });
    for (const step of longSteps(brew, stepsOf.get(brew.id) ?? [], flame))
      brew.holds.push(...names.map((tool) => ({ tool, from: step, to: step })));
  }
}

const isBurner = ({ tool }: { tool: string }): boolean => tool === 'burner';

function burns({ started, ended }: PlanProblem, { id, holds }: PlanBrew): boolean {
  const { from, to } = holds.find(isBurner)!;
  return stepKey(id, from) in started && !(stepKey(id, to) in (ended ?? {}));
}

/** Steps that keep somebody from the flames: long, in the hands, no pour, and not at a flame of their own. */
function longSteps(
  { steps }: PlanBrew,
  onCard: readonly CardStep[],
  flame: { from: string; to: string } | undefined,
): string[] {
  const at = (id: string) => steps.findIndex((step) => step.id === id);
  const [lit, out] = flame ? [at(flame.from), at(flame.to)] : [Infinity, -1];
  return steps
    .filter(
      ({ attended, duration }, index) => attended && duration > LONG_S && !(lit <= index && index <= out),
    )
    .map(({ id }) => id)
    .filter((id) => onCard.find((step) => step.id === id)?.kind !== 'pour');
}
