/** Random bars and random problems: whatever is asked, the plan keeps every rule. */
import { seededRandom } from '../rush';
import { checkPlan, planEarliest, stepKey, type PlanBrew, type PlanProblem } from './index';

const seed = Number(process.env['FUZZ_SEED'] ?? 20261124);
const PROBLEMS = 300;
console.info(`earliest.fuzz seed ${seed}`);

/** A problem of some brews; where `inTheMiddle`, some steps have begun or are over, on time or late. */
function anyProblem(random: () => number, inTheMiddle: boolean): PlanProblem {
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const now = whole(0, 1000);
  const problem: PlanProblem = {
    format: 'even-kettle/plan-problem@1',
    now,
    hands: whole(1, 2),
    tools: { grinder: 1, cone: whole(1, 3), press: 2 },
    orders: [],
    brews: [],
    started: {},
    ended: {},
    frozen: {},
  };
  if (random() < 0.3) problem.away = [{ from: now + whole(0, 300), to: now + whole(301, 700), hands: 1 }];
  for (let index = 0; index < whole(1, 7); index += 1) {
    const steps: PlanBrew['steps'] = [
      {
        id: 'weigh',
        attended: true,
        duration: whole(8, 20),
        lag: { min: 0, ideal: 0, max: null, penalty: 0 },
      },
      {
        id: 'grind',
        attended: false,
        duration: whole(10, 40),
        lag: { min: 0, ideal: 0, max: 0, penalty: 0 },
      },
      {
        id: 'rinse',
        attended: true,
        duration: whole(10, 25),
        lag: { min: 0, ideal: 0, max: 300, penalty: 0.02 },
      },
      {
        id: 'bloom',
        attended: true,
        duration: whole(5, 12),
        lag: { min: 0, ideal: 0, max: 120, penalty: 0.05 },
      },
    ];
    for (let pour = 0; pour < whole(1, 4); pour += 1) {
      const ideal = whole(5, 40);
      steps.push({
        id: `pour${pour}`,
        attended: true,
        duration: whole(8, 60),
        lag: { min: Math.max(2, ideal - 3), ideal, max: ideal + 8, penalty: 1 },
      });
    }
    steps.push({
      id: 'drain',
      attended: false,
      duration: whole(30, 120),
      lag: { min: 0, ideal: 0, max: 0, penalty: 0 },
    });
    steps.push({
      id: 'serve',
      attended: true,
      duration: 18,
      lag: { min: 0, ideal: 0, max: 60, penalty: 0.5 },
      serve: true,
    });
    steps.push({
      id: 'clean',
      attended: true,
      duration: 20,
      lag: { min: 0, ideal: 0, max: 600, penalty: 0.05 },
    });
    const id = `b${index}`;
    const brewer = random() < 0.7 ? 'cone' : 'press';
    problem.brews.push({
      id,
      orders: [`o${index >> 1}`],
      steps,
      holds: [
        { tool: 'grinder', from: 'grind', to: 'grind' },
        { tool: brewer, from: 'rinse', to: 'clean' },
      ],
    });
    const order = problem.orders.find((each) => each.id === `o${index >> 1}`);
    if (order) order.brews.push(id);
    else
      problem.orders.push({
        id: `o${index >> 1}`,
        placedAt: now - whole(0, 200),
        dueAt: now + 500,
        weight: 1,
        serveWithin: 60,
        brews: [id],
      });
  }
  if (inTheMiddle) {
    for (const brew of problem.brews.slice(0, problem.tools['cone'])) {
      let at = now - whole(50, 400);
      for (const step of brew.steps) {
        if (at > now) break;
        problem.started[stepKey(brew.id, step.id)] = at;
        const end = at + Math.round(step.duration * (0.8 + random() * 0.6));
        if (end > now) break;
        problem.ended[stepKey(brew.id, step.id)] = end;
        at = end + step.lag.min + whole(0, 30);
      }
    }
  }
  return problem;
}

test('every plan of a random problem keeps every rule, from rest and in the middle of a rush', () => {
  let relaxed = 0;
  for (let index = 0; index < PROBLEMS; index += 1) {
    const inTheMiddle = index % 2 === 1;
    const problem = anyProblem(seededRandom(seed + index), inTheMiddle);
    const plan = planEarliest(problem);
    expect([index, checkPlan(problem, plan)]).toEqual([index, []]);
    if (!inTheMiddle) expect(plan.relaxed).toEqual([]);
    relaxed += plan.relaxed.length;
    if (index % 10 === 0) expect(planEarliest(problem)).toEqual(plan);
  }
  console.info(`${PROBLEMS} problems, ${relaxed} steps relaxed`);
});

test('a waiting brew starts at the earliest second at which its steps and tools find room', () => {
  for (let index = 0; index < 40; index += 1) {
    const problem = anyProblem(seededRandom(seed + index), false);
    const [first] = problem.brews;
    const plan = planEarliest({
      ...problem,
      away: [],
      brews: [first!],
      orders: [{ ...problem.orders[0]!, brews: [first!.id] }],
    });
    expect(plan.starts[stepKey(first!.id, 'weigh')]).toBe(problem.now);
  }
});
