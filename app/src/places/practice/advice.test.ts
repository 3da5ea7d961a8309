/** What a try is told, from real tries by made-up hands. */
import {
  exercise,
  recipeDrill,
  scorePour,
  scoreTrace,
  freshRun,
  kettleFor,
  stepRun,
  isOver,
  packSamples,
  unpackSamples,
  type Drill,
  type HandNow,
  type PourRun,
} from '@even-kettle/core/practice';
import { tiltFor } from '@even-kettle/core/pour';
import { SCHOOLS, brewCard } from '@even-kettle/core/recipe';
import { METRIC } from '@even-kettle/core/units';
import { OUNCES } from '../../testing/bar';
import { adviceInWords, measureInWords } from './pour-result';
import { chosenDrill, cupsOf } from './drill-choice';
import { whatNow } from './instruction';

/** A hand that pours at one flow to a reading, in the middle, from each pour's time on. */
function poured(drill: Drill, flowGPerS: number, beyondG: number): PourRun {
  const nature = kettleFor(drill);
  let run = freshRun(drill);
  while (!isOver(run, drill)) {
    const pour = drill.pours.findLast(({ startS }) => startS <= run.timeS)!;
    const isDone = run.bed.pouredG >= pour.targetG + beyondG - 0.4 * run.kettle.flowGPerS;
    const hand: HandNow = {
      at: isDone ? null : { x: 0, y: 0.4 },
      tilt: tiltFor(flowGPerS, run.kettle, nature),
      height: 'low',
    };
    run = stepRun(run, drill, hand, nature);
  }
  return run;
}

test('who stops late is told by how much, in the bar’s units', () => {
  const drill = exercise('stop');
  const scored = scorePour(poured(drill, 6, 9), drill);
  expect(scored.advice).toBe('overshootG');
  expect(adviceInWords(scored, METRIC)).toMatch(
    /^Stand the kettle up earlier\. Your pours ended (9|10) g over/,
  );
  expect(adviceInWords(scored, OUNCES)).toMatch(/ended 0\.3\d? oz over/);
  expect(measureInWords('overshootG', scored.measures.overshootG, METRIC)).toMatch(/^\d+\.\d g$/);
});

test('who pours too fast is told to tilt less; who does all well has nothing to change', () => {
  const drill = exercise('hold');
  expect(adviceInWords(scorePour(poured(drill, 6.5, 0), drill), METRIC)).toMatch(
    /^(Tilt a little less|Pour more slowly)/,
  );
  const well = scorePour(poured(drill, 4, 0), drill);
  expect(well.score).toBeGreaterThan(90);
  expect(adviceInWords(well, METRIC)).toMatch(/^Nothing cost you much/);
});

test('a pour on a scale says what a scale cannot see', () => {
  const drill = recipeDrill(brewCard(SCHOOLS[0]!, { cupMl: 250 }))!;
  const scored = scoreTrace(poured(drill, 5, 0).samples, drill);
  expect(measureInWords('wallShare', scored.measures.wallShare, METRIC)).toBe('not seen by a scale');
});

test('what is asked for now follows the drill’s clock and the reading', () => {
  const drill = exercise('stop');
  const at = (timeS: number, cellG: number) => whatNow(drill, { timeS, cellG, hasBegun: timeS > 0 }, METRIC);
  expect(at(0, 0)).toBe('Pour 1 of 3: to 50 g at 6 g/s');
  expect(at(9, 50)).toBe('Wait. The next pour is at 0:14.');
  expect(at(12, 50)).toBe('Pour 2 of 3 in 2 s');
  expect(at(16, 60)).toBe('Pour 2 of 3: to 100 g at 6 g/s');
  expect(at(38, 150)).toBe('That is all. Let it drain.');
});

test('a recipe can be practised in the cups that a brewer of its method takes; one whose water is weighed in before in none', () => {
  const of = (id: string) => SCHOOLS.find((each) => each.id === id)!;
  expect(cupsOf(of('cone-thirds'), 0)).toEqual([150, 200, 250, 300, 350]);
  expect(cupsOf(of('siphon-late'), 0)).toEqual([]);
  expect(chosenDrill('recipe', of('siphon-late'), 350, 0)).toBeNull();
  expect(chosenDrill('recipe', of('cone-thirds'), 250, 2150)?.pours).toHaveLength(4);
});

test('a trace that is kept short shows the same pour', () => {
  const drill = exercise('bloom');
  const { samples } = poured(drill, 5.5, 0);
  const back = unpackSamples(packSamples(samples));
  expect(back).toHaveLength(samples.length);
  expect(Math.abs(scoreTrace(back, drill).score - scoreTrace(samples, drill).score)).toBeLessThanOrEqual(1);
});
