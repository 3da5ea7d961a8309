/**
 * Rules for what is true of the whole recipe: brewer, coffee, water, grind, and what is added. Amounts that are named come before those
 * that stand by themselves.
 */
import { first, has, middle, said, state, type Draft, type FactName } from './draft';
import type { PlainFilter } from '../../recipe';
import type { Figure } from './figures';
import { rule, type Match, type Rule } from './grammar';
import { COMPARED, FEELS, FILTERS, GRINDS, METHOD_NAMES, USUAL_BAND } from './vocabulary';

type R = Rule<Draft>;
const REST = '(?:(?!\\.|¶|\\||\\)|\\()\\S+ ){0,60}';
const CLAUSE = '(?:(?![.,¶()|:–])\\S+ ){0,60}';

const isAmount = (figure: Figure | undefined): figure is Figure => figure !== undefined;

const amountOf =
  (name: FactName, figureName = 'g') =>
  (draft: Draft, match: Match): boolean | void => {
    const found = match.figure(figureName);
    if (!isAmount(found)) return false;
    state(draft, name as 'waterG', said(found), match);
  };

/** What is said of somebody else, against something, or for another coffee fills nothing. */
export const LEFT_OUT: R[] = [
  rule(`by the way ${REST}`, () => 'pass'),
  rule(`{any} (?:\\S+ ){0,2}(?:would|could|might) ${CLAUSE}`, () => 'pass'),
  rule(`(?:– |, )?(?:or )?{any} if ${CLAUSE}`, () => 'pass'),
  rule('{s} (?:after|off) (?:the )?boil ', () => undefined),
  rule('no \\. {n} ', () => undefined),
  // The coffee is corrected once more, without its unit.
  rule(
    "(?:i said )?{n:old} (?:, )?(?:no |sorry |i mean |make that )(?:, )?(?:(?:no|sorry|i mean|make that|it's) )*{n:new} (?!gram)",
    (draft, match) => {
      const [old, other] = [match.figure('old')!, match.figure('new')!];
      const statement = draft.facts.doseG?.[0];
      if (!statement || statement.value !== old.lo || other.lo / old.lo > 1.5) return false;
      statement.value = other.lo;
    },
  ),
  rule(`but (?:for|if|when) (?:the |a |my |an )?${CLAUSE}`, () => 'pass'),
  rule(
    'not (?:too |so |that |very |quite )?(?:hot|boiling) (?:, )?(?:about |more like |at |just )*{cn} ',
    readTemperature,
  ),
  // “twenty, no, sorry, twenty-one”: the first is taken back.
  rule(
    "{any:old} (?:, |– |\\. )?(?:(?:and|bit|half|er|um|uh|well|a|over|under|more|less|or|oh|,) )*(?<by>no |sorry |actually |rather |i mean |make that |make it |scratch that |call it |let's say |correction |i lie )(?:, )?(?:(?:no|sorry|wait|actually|rather|i mean|make that|make it|it's|that's|um|er|call it|,) )*(?=(?<new><[a-z]\\d+>) (?!if |for (?:the |a )?(?:light|dark)|when ))",
    (_, match) => {
      const [old, other] = [match.figure('old')!, match.figure('new')!];
      const alike =
        old.kind === other.kind ||
        old.kind === 'bare' ||
        other.kind === 'bare' ||
        isWater(old) === isWater(other);
      const factor = other.lo / old.lo;
      return alike && factor > 0.4 && factor < 2.5;
    },
  ),
  rule(
    `(?:boss |teacher |friend |brother |sister |father |mother |grandmother |grandfather |uncle |aunt |neighbour |colleague |somebody |someone |people |others |everybody |everyone |they |he |she )(?:\\S+ )?(?:gave |gives |give |used |uses |use |says |said |say |swear |swears |does |did |likes |liked |wants |told |tell |tells |pour |pours |go |goes )${REST}`,
    () => 'pass',
  ),
  rule(
    `\\( (?:for )?(?:the )?(?:dark|light|medium|darker|lighter|older|fresh) (?:ones|roasts?|coffees?|beans) (?:: |, )?${REST}\\) `,
    () => 'pass',
  ),
  rule(`(?:, )?or (?:with |at )?{any} (?:if|for|when|with) ${CLAUSE}`, () => 'pass'),
  rule(
    `{any} (?:if|for|when) (?:it's |it is |you have |you've got )?(?:a |the )?(?:dark|darker|light|lighter) (?:ones?|roasts?|coffees?|beans) `,
    (draft) => (has(draft, 'waterC') ? 'pass' : false),
  ),
  rule(
    `(?:for )?(?:the )?(?:dark|darker|light|lighter) (?:ones|roasts|coffees|beans) (?:: |at |go |get )*{cn} `,
    () => 'pass',
  ),
  // A sentence that begins with it is all about the case; behind a comma it ends with the next.
  rule(`if (?!not )${REST}`, (_, match) => (beginsSentence(match) ? 'pass' : false)),
  rule(`if (?!not )${CLAUSE}`, () => 'pass'),
  rule(
    `(?:do not|does not|don't|dont|doesn't|never|not|no|without|avoid|nobody|nothing|can't|cannot|won't|isn't) (?!sooner|later|,)${CLAUSE}`,
    () => 'pass',
  ),
];

const beginsSentence = ({ line, fromToken }: Match): boolean => {
  const before = line.tokens[fromToken - 1];
  return before === undefined || (before.is === 'stop' && /[.¶]/.test(before.text));
};

const isWater = ({ kind }: Figure): boolean => kind === 'mass' || kind === 'volume';

const COFFEE = '(?:coffee |beans |bean |grounds |ground coffee )';

export const FACTS: R[] = [
  // What is rinsed, added and iced is no brew water.
  rule(
    '(?:rinse|rinsed|rinsing|wet|wetted|preheat|preheated|warm|warmed) (?:(?:the|it|paper|filter|well|all|cloth|server|first|and|brewer|cap|thoroughly|through|that|big|thick) )*(?:with|using|w) _ {gn}(?: (?:of )?(?:hot |boiling )?water)? ',
    (draft, match) => {
      const found = match.figure('gn')!;
      // “wet it with 50” is the bloom where it is the coffee that is wetted.
      if (/^(?:wet|wetted) it/.test(wordsOf(match))) return false;
      const filter = /cloth|paper|metal/.exec(wordsOf(match))?.[0];
      if (filter) stateFilter(draft, filter as PlainFilter, match);
      state(draft, 'rinseG', said(found), match);
    },
  ),
  rule('{g} _ (?:for the |for |to )rinse ', amountOf('rinseG')),
  rule('rinse (?:water )?(?:: )?{g} ', amountOf('rinseG')),
  rule(
    '(?:rinse|rinsed) (?:the |it |paper |filter |cloth |well |first |through |properly |and |empty |the server |throw (?:that|the water) away )*',
    () => undefined,
  ),
  rule('{g} (?:of )?(?:ice|ice cubes) ', amountOf('iceG')),
  rule('(?:ice|over ice|on ice) (?:: |, )?{g} ', amountOf('iceG')),
  rule(
    '(?:stretch|dilute|top up|top it up|lengthen|thin|thin it|bypass|open it up|cut|cut it|loosen) (?:: )?(?:(?:it|up|out|out again|the cup|the brew|with|w|by|a|another|of|–) )*{g} (?:of )?(?:(?:hot |boiling |fresh |cold )?water )?(?:afterwards |after |at the end )?',
    amountOf('bypassG'),
  ),
  rule(
    '{g} (?:of )?(?:hot |boiling )?(?:water )?(?:of |as |for )?(?:a )?(?:bypass|afterwards|after brewing|into the cup|to the cup|straight into the server) ',
    amountOf('bypassG'),
  ),
  rule('bypass (?:: |of |with |water )*{g} ', amountOf('bypassG')),

  rule(
    `{g:each} (?:of )?(?:${COFFEE})?(?:for |per )(?:each |every |a )?(?:{g} )?(?:cup|mug|person) `,
    (draft, match) => {
      const found = match.figure('each')!;
      if (found.lo > 30) return false;
      state(draft, 'perCupG', said(found), match);
    },
  ),
  // A brewer's size, or a cup's, is no water of the brew.
  rule(
    `{v} (?=${METHOD_NAMES.map(([pattern]) => pattern).join('|')}|press |pot )`,
    amountOf('brewerMl', 'v'),
  ),
  rule(
    '(?:it |which |that )?(?:holds|takes up to|has room for|fits) (?:up to |about )?{v} ',
    amountOf('brewerMl', 'v'),
  ),
  rule('{g} (?:size |(?:cup|mug|bowl) (?:size )?)', () => undefined),
  rule(
    '(?:add |pour |and |then )*{g} (?:of )?(?:hot |boiling )?water (?:to|into|in) the (?:cup|server|carafe|mug|glass|jug) ',
    amountOf('bypassG'),
  ),
  rule(
    '{g} (?:of )?(?:hot |cold )?water (?:per|a|for each|for every|each) (?:cup|person|mug) ',
    (draft, match) => {
      state(draft, 'perCupWaterG', said(match.figure('g')!), match);
    },
  ),
  rule('{g} each ', (draft, match) => {
    const found = match.figure('g')!;
    if (!has(draft, 'servings') || draft.pours.length > 0 || draft.series.length > 0) return false;
    state(draft, found.lo > 30 ? 'perCupWaterG' : 'perCupG', said(found), match);
  }),

  rule(
    '(?:i )?(?:then )?(?:add|pour in) (?:about |another )*{gn} (?:of )?(?:hot |boiling |fresh )?water ',
    (draft, match) => {
      if (draft.isPoured || !has(draft, 'waterG')) return false;
      state(draft, 'bypassG', said(match.figure('gn')!), match);
    },
  ),

  // A spoon's size and a cup's size count spoons and cups.
  rule(
    '{n} _ (?:heaped |level |heaping |big |small |rounded |table )*spoons? (?:at |of |\\( |, )*{g} (?:each |\\) )*',
    (draft, match) => {
      state(draft, 'spoons', match.figure('n')!.lo, match);
      state(draft, 'spoonG', match.figure('g')!.lo, match);
    },
  ),
  rule('{n} _ (?:heaped |level |heaping |big |small |rounded |table )*spoons? ', (draft, match) => {
    state(draft, 'spoons', match.figure('n')!.lo, match);
  }),
  rule(
    '(?:a |my |one |each |the )?(?:level |heaped )?spoon (?:is|holds|weighs|of mine is|takes|gives) _ {g} ',
    (draft, match) => {
      state(draft, 'spoonG', match.figure('g')!.lo, match);
    },
  ),
  rule('(?:mine|each|they|one) (?:hold|holds|is|weigh|weighs|are|take) _ {g} (?:each )?', (draft, match) => {
    if (!has(draft, 'spoons')) return false;
    state(draft, 'spoonG', match.figure('g')!.lo, match);
  }),
  rule('{g} (?:a|per|each|to the) spoon ', (draft, match) =>
    state(draft, 'spoonG', match.figure('g')!.lo, match),
  ),
  rule(
    '{n} (?:cups|mugs|bowls|glasses) _ (?:\\( )?(?:my |a |one |each |the )?(?:cup|mug|cups|mugs|bowl|glass|each) (?:is|holds|hold|are|of) _ {g} ',
    (draft, match) => {
      state(draft, 'cups', match.figure('n')!.lo, match);
      state(draft, 'cupMl', match.figure('g')!.lo, match);
      state(draft, 'servings', match.figure('n')!.lo, match);
    },
  ),
  rule('{n} (?:cups|mugs|bowls|glasses) of {g} (?:each )?', (draft, match) => {
    state(draft, 'cups', match.figure('n')!.lo, match);
    state(draft, 'cupMl', match.figure('g')!.lo, match);
    state(draft, 'servings', match.figure('n')!.lo, match);
  }),
  rule(
    "(?:for each|for every|per|a|each|every) (?:{gn} )?(?:cup|person|mug|head) (?:: |, |it's |is |i take |take |i use |use |i'm at )*{g} (?:of )?(?:coffee )?",
    (draft, match) => {
      const found = match.figure('g')!;
      if (found.lo > 30) return false;
      state(draft, 'perCupG', said(found), match);
    },
  ),
  rule(
    '{g} (?:of )?(?:coffee )?(?:a|per|for each|for every|each) (?:cup|person|mug|head) ',
    (draft, match) => {
      const found = match.figure('g')!;
      if (found.lo > 30) return false;
      state(draft, 'perCupG', said(found), match);
    },
  ),
  rule(
    "(?:making|make|makes|brewing|it's) {n} (?:, )?(?:so|that's|which is|that makes) {gn:dose} ",
    (draft, match) => {
      if (!has(draft, 'perCupG')) return false;
      state(draft, 'servings', match.figure('n')!.lo, match);
      state(draft, 'doseG', said(match.figure('dose')!), match);
    },
  ),
  rule(
    "(?:enough|that's enough|serves|serve|serving|servings|makes|make|feeds|good|yields|gives) (?:¶ )?(?:for |: |about |up to )*{n} (?:in )?(?:small |large |big |good |people |persons |cups |mugs |guests |of us |servings |glasses )*",
    (draft, match) => {
      const found = match.figure('n')!;
      if (found.lo > 12 || found.lo !== Math.round(found.lo)) return false;
      state(draft, 'servings', found.lo, match);
    },
  ),
  rule(
    'for (?:the )?{n} (?=people|persons|cups|mugs|guests|of us|[.,:¶(–]|$)(?:people |persons |cups |mugs |guests |of us )?',
    (draft, match) => {
      const found = match.figure('n')!;
      if (found.lo > 12 || found.lo !== Math.round(found.lo) || draft.pours.length > 0) return false;
      state(draft, 'servings', found.lo, match);
    },
  ),
  rule('{n} cups? size ', (draft, match) => state(draft, 'servings', match.figure('n')!.lo, match)),
  rule('{n} (?:cups|mugs|people|persons) (?!of |<)', (draft, match) => {
    const found = match.figure('n')!;
    if (found.lo > 12 || found.lo !== Math.round(found.lo)) return false;
    state(draft, 'servings', found.lo, match);
  }),

  // Grind: a comparison first, then a feel, then a plain band.
  rule(
    '(?<bit>(?:a )?(?:bit |touch |little |hair |shade |notch |tad )|slightly |just )?(?<way>finer|coarser) than _ (?:(?:for|you|would|use|usual|i|it|from) )*(?:the |a |your |my )?(?<like>(?:\\S+ ){0,2}?(?:sand|salt|sugar|pepper|couscous|semolina|flour|rice|cone|press|paper|flat|espresso) )',
    (draft, match) => {
      const like = match.words('like')!;
      const feel = FEELS.find(([pattern]) => new RegExp(`^(?:.* )?${pattern}`).test(`${like} `))?.[1];
      const usual = Object.entries(USUAL_BAND).find(([word]) => like.includes(word))?.[1];
      const base = feel ?? usual;
      if (base === undefined) return false;
      const by = match.words('bit') ? COMPARED.abit : COMPARED.plainly;
      state(draft, 'grindBand', base + (match.words('way') === 'finer' ? by : -by), match);
    },
  ),
  rule(
    `(?:grind|ground|grinds|grinding)?(?: )?(?:(?:is|to|it|them|size|as|just) )*(?:like|think|=|fine as|coarse as|fine like|coarse like|resembling|looks like|as fine as|as coarse as|between the fingers like|feels like|to) (?:the |a |some )?(?<feel>${FEELS.map(([pattern]) => pattern).join('|')})`,
    readFeel,
  ),
  rule(
    `(?:grind|ground|grinds) (?:: |to |– )*(?:about )?(?<feel>${FEELS.map(([pattern]) => pattern).join('|')})`,
    readFeel,
  ),
  rule(
    `(?<feel>${FEELS.map(([pattern]) => pattern).join('|')})(?:fine |grind |ground |kind of grind |sort of grind |or so |size )`,
    readFeel,
  ),
  rule(
    '(?:light|medium|dark) (?:to (?:light|medium|dark) )?(?:roasts? |roasted )(?:coffees? |beans? )?',
    readRoast,
  ),
  rule('for (?:a )?(?<roast>light|medium|dark) (?:ones|coffees|beans|coffee) ', readRoast),
  rule('roast (?:: |is |– )?(?:light|medium|dark) ', readRoast),
  rule(
    `(?:grind|ground|grinds|grinder) (?:: |– |is |it |to |on |size |them |at |setting |quite |rather |pretty |a |bit |, )*(?<grind>${GRINDS.map(([pattern]) => pattern).join('|')})(?:grind )?`,
    readGrind,
  ),
  rule(
    `(?<grind>${GRINDS.map(([pattern]) => pattern).join('|')})(?:grind|ground|grinds) (?:coffee )?`,
    readGrind,
  ),
  rule(
    `(?<grind>${GRINDS.map(([pattern]) => pattern).join('|')})(?=[,.;¶()|–]|and |in |$)`,
    (draft, match) => {
      // “93 is fine” says nothing of the grind; what stands by itself, or beside the coffee, does.
      const before = match.line.tokens[match.fromToken - 1];
      const beside =
        before === undefined ||
        before.is === 'stop' ||
        (before.is === 'figure' && before.kind === 'mass') ||
        (before.is === 'word' && /^(?:coffee|beans|it|grams|quite|rather)$/.test(before.text));
      return beside ? readGrind(draft, match) : false;
    },
  ),

  // Water: how hot.
  rule('(?:just |straight |right |water )*off (?:the )?boil ', (draft, match) =>
    state(draft, 'offBoil', true, match),
  ),
  rule('(?:just |freshly )boiled (?:water )?', (draft, match) => state(draft, 'offBoil', true, match)),

  // Ratio.
  rule('(?:ratio |ratio of )(?:: |is |of |at )*{r} ', readRatio),
  rule('(?:ratio |ratio of )(?:: |is |of |at )*{k} ', readRatio),
  rule(
    '{gn:water} (?:of )?(?:hot )?water (?:to|for|on|with) {gn:dose} (?:of )?(?:coffee |beans )',
    (draft, match) => {
      state(draft, 'waterG', said(match.figure('water')!), match);
      state(draft, 'doseG', said(match.figure('dose')!), match);
    },
  ),
  rule('{g:dose} (?:coffee )?(?:to|:|–|on|per|for) {gn:water} (?:of )?(?:water )?', (draft, match) => {
    const [dose, water] = [match.figure('dose')!, match.figure('water')!];
    if (water.lo / dose.lo < 6 || water.lo / dose.lo > 25 || has(draft, 'doseG') || dose.plus || water.plus)
      return false;
    if (draft.pours.length > 0 && has(draft, 'waterG')) return false;
    state(draft, 'doseG', said(dose), match);
    state(draft, 'waterG', said(water), match);
  }),
  rule("(?:roughly |about |so |that's |at )?{r} (?:ratio )?(?:of )?(?:coffee to water )?", readRatio),
  rule('{k} (?:ratio )', readRatio),
  rule('{k} (?=with |at |and |for |, )', (draft, match) =>
    has(draft, 'doseG') || has(draft, 'waterG') || draft.pours.length > 0 ? false : readRatio(draft, match),
  ),
  rule('{k} (?=[,.;¶()|–]|$)', (draft, match) => {
    const found = match.figure('k')!;
    const [doseG, waterG] = [first(draft, 'doseG'), first(draft, 'waterG')];
    if (found.ratio === undefined || has(draft, 'ratio') || draft.pours.length > 0 || doseG === undefined)
      return false;
    // Beside both it says once more what they make.
    if (waterG !== undefined && Math.abs(middle(waterG) / middle(doseG) - found.ratio) > 0.6) return false;
    if (Object.keys(draft.next).length > 0) return false;
    const next = match.line.tokens[match.toToken];
    if (next?.is === 'stop' && next.text === ':') return false;
    state(draft, 'ratio', found.ratio, match);
  }),
  rule('{l} (?:coffee |of coffee )?', (draft, match) =>
    state(draft, 'ratio', 1000 / match.figure('l')!.lo, match),
  ),

  // Coffee.
  rule(
    `(?:${COFFEE}|dose |in |put in |putting in |i take |i use |weigh |weigh out )(?:: |is |– |about |of )*{g} (?:of )?(?:${COFFEE})?`,
    (draft, match) => {
      const found = match.figure('g')!;
      // “In: 21.5 g” is a label; “in 40 g” is no dose.
      if (found.lo > 95 || found.plus || /^in (?!: )/.test(wordsOf(match))) return false;
      state(draft, 'doseG', said(found), match);
    },
  ),
  rule(`(?:tip|add|drop|put|in goes|in go) (?:the )?{g} (?:of )?(?:${COFFEE})?in `, (draft, match) => {
    const found = match.figure('g')!;
    if (found.lo > 95) return false;
    state(draft, 'doseG', said(found), match);
  }),
  rule(`{n:g} of (?:the |ground )*${COFFEE}`, (draft, match) => {
    const found = match.figure('g')!;
    if (found.lo < 5 || found.lo > 95) return false;
    state(draft, 'doseG', said(found), match);
  }),
  rule(`{g} (?:of )?(?:(?:a|the|dry|whole|fresh|ground) )*(?:${COFFEE}|dry |grounds )`, (draft, match) => {
    const found = match.figure('g')!;
    if (found.lo > 95 || found.plus) return false;
    state(draft, 'doseG', said(found), match);
  }),
];

function wordsOf({ line, fromToken, toToken }: Match): string {
  return line.text.slice(line.starts[fromToken], line.starts[toToken] ?? line.text.length);
}

function readFeel(draft: Draft, match: Match): boolean | void {
  const feel = `${match.words('feel')} `;
  const found = FEELS.find(([pattern]) => new RegExp(`^${pattern}$`).test(feel));
  if (!found) return false;
  state(draft, 'grindBand', found[1], match);
}

function readGrind(draft: Draft, match: Match): boolean | void {
  const grind = `${match.words('grind')} `;
  const found = GRINDS.find(([pattern]) => new RegExp(`^${pattern}$`).test(grind));
  if (!found) return false;
  state(draft, 'grindBand', found[1], match);
}

function readRoast(draft: Draft, match: Match): boolean | void {
  const found = /light|medium|dark/.exec(wordsOf(match));
  if (!found || / to (?:light|medium|dark)/.test(wordsOf(match))) return false;
  state(draft, 'roast', found[0] as 'light', match);
}

function readRatio(draft: Draft, match: Match): boolean | void {
  const found = match.figure('r') ?? match.figure('k')!;
  const value = found.kind === 'clock' ? found.ratio : found.lo;
  if (value === undefined) return false;
  state(draft, 'ratio', value, match);
}

/** “The paper” of a thick one is thick; a cloth beside a paper is asked after. */
function stateFilter(draft: Draft, filter: PlainFilter, match: Match): void {
  const isPaper = (kind: PlainFilter | undefined) => kind === 'paper' || kind === 'thick-paper';
  const statement = draft.facts.filter?.[0];
  if (!statement || !isPaper(statement.value) || !isPaper(filter))
    return state(draft, 'filter', filter, match);
  if (filter === 'thick-paper') statement.value = filter;
}

/** Names of brewers and filters; the one method of the text has been found before. */
export const NAMES: R[] = [
  ...METHOD_NAMES.map(([pattern, method]) =>
    rule<Draft>(pattern, (draft, match) => {
      if (draft.method !== method) return false;
      if (!has(draft, 'method')) state(draft, 'method', method, match);
    }),
  ),
  rule('press ', (draft, match) => {
    // At the head of a text it is the brewer.
    if (draft.method !== 'press' || match.fromToken > 0) return false;
    state(draft, 'method', 'press', match);
  }),
  rule('press (?=[,.:¶(–|]|for |with |is |i |again |brew |coffee |$)', (draft, match) => {
    if (draft.method !== 'press') return false;
    if (!has(draft, 'method')) state(draft, 'method', 'press', match);
  }),
  ...FILTERS.map(([pattern, filter]) =>
    rule<Draft>(pattern, (draft, match) => {
      stateFilter(draft, filter, match);
    }),
  ),
  rule(
    '(?:shake (?:it |the bed )?|level (?:it |the bed )?(?:off )?|tap (?:it |the bed )?)(?:level |flat |with a tap )?',
    (draft, match) => {
      if (/^tap $/.test(wordsOf(match))) return false;
      state(draft, 'bed', 'level', match);
    },
  ),
  rule('well : (?<deep>deep|shallow) ', (draft, match) =>
    state(draft, 'bed', match.words('deep') === 'deep' ? 'deep well' : 'shallow well', match),
  ),
  rule('(?:bed |basket )(?:: )?(?:level|flat) ', (draft, match) => state(draft, 'bed', 'level', match)),
  rule(
    '(?:a |an |make |press |poke )*(?<deep>deep |small |shallow |little )?(?:well|hollow|dent|dimple) (?:in (?:the |it)(?:middle |centre |center )?|with (?:a|your) thumb )?',
    (draft, match) => {
      const deep = match.words('deep');
      if (!deep && !/hollow|dent|dimple|make|poke/.test(wordsOf(match))) return false;
      state(draft, 'bed', deep === 'deep' ? 'deep well' : 'shallow well', match);
    },
  ),
];

const LABELS = 'brewer|coffee|dose|water|temp|temperature|grind|ratio|filter|name|roast|kettle';
/** Figures that stand by themselves: the first mass is the coffee, a volume or a much larger mass the water. */
export const BARE: R[] = [
  rule(
    '(?:water |total |kettle |temp |temperature |heat |heated |brew |brewing |probe |thermometer |says |reads |steady |hot |@ |at )+(?:: |is |at |about |around |reads |says |to |temp |temperature |– |@ |, )*{cn} ',
    readTemperature,
  ),
  rule('{c} ', readTemperature),
  rule('(?:at |around |about |@ |near |roughly )+{n:cn} ', (draft, match) => {
    const found = match.figure('cn')!;
    if (found.kind !== 'bare' || found.lo < 70 || found.hi > 100 || has(draft, 'waterC')) return false;
    const before = match.line.tokens[match.fromToken - 1];
    const isOfWater =
      (before?.is === 'word' && /^(?:water|it|hot|heated)$/.test(before.text)) ||
      (before?.is === 'figure' && (before.kind === 'mass' || before.kind === 'volume'));
    if (!isOfWater) return false;
    if (!has(draft, 'waterG') && !has(draft, 'doseG')) return false;
    state(draft, 'waterC', said(found), match);
  }),
  rule('(?:hot|boiling) (?:hot )?(?:, )?(?:so |about |around |say |at |near )*{n:cn} ', readTemperature),
  rule('{cn} (?:up top|in the top|at the top|above) ', readTemperature),
  rule('(?:calmed|settled|cooled|steadied|steady|down|risen) (?:to|at) {cn} ', readTemperature),
  rule('iced ', () => undefined),
  rule('{n:cn} (?=[.,;¶]|$)', (draft, match) => {
    const before = match.line.tokens[match.fromToken - 1];
    const isAlone = before?.is === 'stop' && /[.,¶]/.test(before.text);
    const isEarly =
      draft.pours.length === 0 && has(draft, 'doseG') && has(draft, 'waterG') && !has(draft, 'waterC');
    if (!isAlone || !isEarly || match.figure('cn')!.lo < 80) return false;
    return readTemperature(draft, match);
  }),
  rule('room temperature ', (draft, match) => state(draft, 'waterC', 'room', match)),
  rule(
    '(?:total |in all |altogether |all in all )(?:: |of |water |is )*{gn} (?:of )?(?:water )?(?:in all |in total )?',
    readWater,
  ),
  rule(
    '(?:water|globe|kettle|out of the kettle|fill|fill the globe|pour|brew water|total water|fill water) (?:\\( globe \\) |first )?(?:: |is |with |– |of |to (?:below |under |just below )?the valve |up |, |about |takes |gets )*{g} (?:of )?(?:water )?(?:in all |in total |altogether )?',
    (draft, match) => (/^pour /.test(wordsOf(match)) && draft.isPoured ? false : readWater(draft, match)),
  ),
  rule(
    '{gn} (?:of )?(?:(?:hot|cold|boiling|fresh|soft|filtered|brew|brewing) )*water (?:in all |in total |altogether )?',
    readWater,
  ),
  rule('{gn} (?:in (?:all|total)|altogether|all told|in the globe|into the globe|all in) ', readWater),
  rule('{gn} (?:hot |cold )?in the globe ', readWater),
  rule('(?:fill|top|pour|go) (?:it )?(?:up )?(?:to|until) {g} ', (draft, match) =>
    draft.isPoured ? false : readWater(draft, match),
  ),
  rule('water (?:: |is |about )*{n:gn} ', (draft, match) => {
    const found = match.figure('gn')!;
    return found.lo < 100 || has(draft, 'waterG') ? false : readWater(draft, match);
  }),
  rule('{gn} of (?:it|that|the stuff) ', (draft, match) => {
    const doseG = first(draft, 'doseG');
    const ratio = doseG === undefined ? 0 : match.figure('gn')!.lo / middle(doseG);
    return has(draft, 'waterG') || ratio < 6 || ratio > 25 ? false : readWater(draft, match);
  }),
  rule('{n} in (?:grams|g|millilitres|ml) ', (draft, match) => {
    const waterG = first(draft, 'waterG');
    if (waterG === undefined || Math.abs(match.figure('n')!.lo / middle(waterG) - 1) > 0.03) return false;
    state(draft, 'waterG', middle(waterG), match);
  }),
  // What comes out of dose and ratio, said once more.
  rule("(?:so |that's |which is |makes |, )*{n} ", (draft, match) => {
    const [doseG, ratio] = [first(draft, 'doseG'), first(draft, 'ratio')];
    const found = match.figure('n')!;
    if (doseG === undefined || ratio === undefined || draft.pours.length > 0) return false;
    if (Math.abs(found.lo / (middle(doseG) * ratio) - 1) > 0.03) return false;
    state(draft, 'waterG', said(found), match);
  }),
  rule("(?:so |that's |makes |for |gives )+(?:, )?{gn} of water ", readWater),
  rule('{g} ', (draft, match) => {
    const found = match.figure('g')!;
    if (found.plus) return false;
    const doseG = first(draft, 'doseG');
    const waterG = first(draft, 'waterG');
    const isFirst = draft.pours.length === 0;
    if (
      doseG === undefined &&
      isFirst &&
      found.kind === 'mass' &&
      found.lo >= 5 &&
      found.hi <= 95 &&
      !has(draft, 'spoons')
    ) {
      state(draft, 'doseG', said(found), match);
      return;
    }
    if (
      !isFirst &&
      doseG === undefined &&
      found.kind === 'mass' &&
      found.lo >= 5 &&
      found.hi <= 60 &&
      !speaksOfPours(match)
    ) {
      state(draft, 'doseG', said(found), match);
      return;
    }
    if (waterG !== undefined || (!isFirst && speaksOfPours(match))) return false;
    const ratio = doseG === undefined ? (found.kind === 'volume' ? 15 : 0) : found.lo / middle(doseG);
    if (ratio < 6 || ratio > 25) return false;
    state(draft, 'waterG', said(found), match);
  }),
  rule(`(?:${LABELS}) (?=[:<]|<)`, () => undefined),
];

/** Whether the clause before it speaks of time or of pouring, so that a figure is no dose. */
function speaksOfPours({ line, fromToken }: Match): boolean {
  for (const token of line.tokens.slice(Math.max(0, fromToken - 6), fromToken).toReversed()) {
    if (token.is === 'stop' && /[.¶]/.test(token.text)) return false;
    if (token.is === 'figure' && (token.kind === 'clock' || token.kind === 'span')) return true;
    if (
      token.is === 'word' &&
      /^(?:pour|add|then|another|more|to|up|until|swirl|stir|bloom|wait)$/.test(token.text)
    )
      return true;
  }
  return false;
}

function readTemperature(draft: Draft, match: Match): boolean | void {
  const found = (match.figure('cn') ?? match.figure('c'))!;
  if (found.kind === 'bare' && (found.lo < 60 || found.hi > 100)) return false;
  if (found.lo < 1 || found.hi > 100.5) return false;
  state(
    draft,
    'waterC',
    found.kind === 'temperature' ? said({ lo: tenth(found.lo), hi: tenth(found.hi) }) : said(found),
    match,
  );
}
const tenth = (value: number): number => Math.round(value * 10) / 10;

function readWater(draft: Draft, match: Match): boolean | void {
  const found = (match.figure('gn') ?? match.figure('g'))!;
  if (found.plus || found.lo < 40) return false;
  state(draft, 'waterG', said(found), match);
  if (/ cold /.test(wordsOf(match)) && !has(draft, 'waterC')) state(draft, 'waterC', 'cold', match);
}
