/**
 * The data that the rest of this folder learns from.
 */
import type { BarState, HouseEvent } from '@even-kettle/core/brew';
import type { Bar, BrewRecord } from '@even-kettle/core/contract';
import { areBrewedAlike, type Recipe } from '@even-kettle/core/recipe';
import type { RecordRepository } from '../store/records';
import type { TraceRepository } from '../store/traces';

export type Sources = {
  records: RecordRepository;
  traces: TraceRepository;
  state: () => BarState;
  bar: () => Bar;
  /** The latest version of a recipe. */
  recipe: (id: string) => Recipe | undefined;
  /** All its versions. */
  versions: (id: string) => readonly Recipe[];
  nowMs: () => number;
};

/** Samples that were tasted behind letters are sold to nobody. */
export const isSold = ({ sample }: BrewRecord): boolean => sample === undefined;

/** Whole records. */
export const LEARN_FROM = 300;

/** Events about stock and care, oldest first. */
export const houseEventsOf = <Type extends HouseEvent['type']>(state: BarState, type: Type) =>
  (state.houseEvents ?? []).filter(
    (event): event is Extract<HouseEvent, { type: Type }> => event.type === type,
  );

export const tenth = (value: number): number => Math.round(value * 10) / 10;

type Kind = { recipeVersion: number | null; grinderId: string | null };

/** The versions of a recipe that are brewed as one of them is, that one among them. */
export function versionsLike(
  recipeId: string,
  version: number | null,
  { versions }: Sources,
): Set<number | null> {
  const all = versions(recipeId);
  const wanted = all.find((recipe) => recipe.version === version);
  const alike = wanted ? all.filter((recipe) => areBrewedAlike(recipe, wanted)) : [];
  return new Set([version, ...alike.map((recipe) => recipe.version)]);
}

/**
 * The latest brews that can be learnt from together: of versions of the recipe that are brewed alike, with one grinder. A
 * brew whose grinder is unknown counts as of the only known grinder; if several are known, it is left out.
 * @param brews oldest first
 * @param alike the versions that are brewed as a version is
 */
export function ofOneKind<Brew>(
  brews: readonly Brew[],
  kindOf: (brew: Brew) => Kind,
  alike: (version: number | null) => ReadonlySet<number | null>,
): Brew[] {
  const last = brews.at(-1);
  if (last === undefined) return [];
  const versions = alike(kindOf(last).recipeVersion);
  const ofVersion = brews.filter((brew) => versions.has(kindOf(brew).recipeVersion));
  const known = ofVersion.map((brew) => kindOf(brew).grinderId).filter((id) => id !== null);
  const grinderId = known.at(-1) ?? null;
  const several = new Set(known).size > 1;
  return ofVersion.filter((brew) => {
    const own = kindOf(brew).grinderId;
    return own === grinderId || (own === null && !several);
  });
}
