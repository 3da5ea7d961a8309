/**
 * Rules for what is poured over a bed: when, how much, where, and what is done after it. A time, a cue, a path that stand before an amount
 * wait for it (`next`); what follows it in the same clause is about it.
 */
import type { WaterPath } from '../../pour';
import type { StartCue } from '../../recipe';
import {
  awaitWhat,
  first,
  has,
  isMet,
  middle,
  said,
  state,
  timeOf,
  type Draft,
  type DraftPour,
  type PourAmount,
  type Said,
} from './draft';
import type { Figure } from './figures';
import { rule, type Match, type Rule } from './grammar';

type R = Rule<Draft>;

const PATHS: readonly [string, WaterPath][] = [
  [
    '(?:in |with |a |slow |small |gentle |wide |thin )*(?:spiral |spirals |spiralling |circles |circling |circle |circular |spiral motion )(?:outwards? |outward )?',
    'spiral',
  ],
  ['from (?:the )?(?:inside|middle|centre|center) (?:out|outwards?|to the edge) ', 'spiral'],
  ['(?:in |into |to |on |at |down )*(?:the |its |dead )*(?:centre |center |middle )(?:only )?', 'centre'],
  ['(?:in |as )?(?:a |one )?ring ', 'ring'],
  ['(?:along |at |round |around )+(?:the )?edges? ', 'edge'],
  ['all over (?:the bed )?', 'all over'],
];

const FIRST = '(?:bloom |blooming |pre infuse |pre infusion |preinfusion |pre wet |prewet |wetting )';
/** What a first pour is for, where it is said so. */
const TO_WET =
  '(?:for (?:the |a )?bloom |to bloom |to get (?:it|everything|all of it|the bed|them) (?:all )?(?:damp|wet|going) |to wet (?:it|the bed|everything|all of it)(?: all)? |to (?:start|begin)(?: with)? |first |on |bloom )';

/** Adds a pour; what waits for an amount is its own now. */
function pour(draft: Draft, amount: PourAmount, match: Match, more: Partial<DraftPour> = {}): void {
  const { atS, waitS, cue, path, waterC } = draft.next;
  const isFirst = draft.pours.length === 0;
  draft.pours.push({
    amount,
    ...(isFirst ? { atS: 0 } : atS === undefined ? (waitS === undefined ? {} : { waitS }) : { atS }),
    ...(cue && !isFirst ? { cue } : {}),
    ...(path ? { path } : {}),
    ...(waterC === undefined ? {} : { waterC }),
    ...more,
  });
  draft.next = {};
  // The time that waited for it says when.
  if (draft.waiting) place(draft, `pours.${draft.pours.length}`, { ...match, ...draft.waiting });
  isMet(draft);
  draft.lastPourEnds = match.toToken;
  place(draft, `pours.${draft.pours.length}`, match);
}

export function place(draft: Draft, field: string, { line, fromToken, toToken }: Match): void {
  draft.found.push({ field, from: line.tokens[fromToken]!.from, to: line.tokens[toToken - 1]!.to });
}

const wordsOf = ({ line, fromToken, toToken }: Match): string =>
  line.text.slice(line.starts[fromToken], line.starts[toToken] ?? line.text.length);

const cueIn = (match: Match): StartCue =>
  /stream|drip|flow/.test(wordsOf(match)) ? 'stream thins' : 'bed about to show';

/** How an amount is meant: more, up to, or bare. */
function amountOf(figure: Figure, way: 'to' | 'add' | 'bare'): PourAmount | null {
  const value = said(figure);
  if (figure.kind === 'percent') return { share: middle(value) / 100 };
  if (figure.kind === 'times') return { timesDose: middle(value) };
  if (figure.kind === 'clock') return null;
  const bare = figure.kind === 'bare' ? { isBare: true as const } : {};
  return figure.plus || way === 'add'
    ? { addG: value, ...bare }
    : way === 'to'
      ? { toG: value, ...bare }
      : { g: value, ...bare };
}

/** Whether this clause speaks of a pour before the token: its time, its cue or a pour's own words. */
const awaits = ({ next }: Draft): boolean =>
  next.atS !== undefined ||
  next.waitS !== undefined ||
  next.cue !== undefined ||
  next.path !== undefined ||
  next.isNamed === true;

const knowsWater = (draft: Draft): boolean =>
  has(draft, 'waterG') || has(draft, 'ratio') || draft.pours.length > 0;

const bloomBy =
  (name = 'a') =>
  (draft: Draft, match: Match): boolean | void => {
    const found = match.figure(name)!;
    if (draft.pours.length > 0 || found.kind === 'span' || found.kind === 'temperature') return false;
    if (found.kind === 'bare' && found.lo < 10) return false;
    const amount = amountOf(found, 'to');
    if (!amount) return false;
    const lasts = timeOf(match.figure('t'));
    pour(draft, amount, match, { isBloom: true });
    if (lasts !== null)
      awaitWhat(draft, /wait|leave|sit |rest|give/.test(wordsOf(match)) ? { waitS: lasts } : { atS: lasts }, {
        ...match,
        fromToken: match.toToken - 1,
      });
  };

const toBy = (draft: Draft, match: Match): boolean | void => {
  const found = match.figure('a')!;
  if (found.kind === 'times' || (found.kind === 'bare' && found.lo < 20 && !awaits(draft))) return false;
  if (!awaits(draft) && draft.pours.length === 0 && !knowsWater(draft)) return false;
  pour(draft, amountOf(found, 'to')!, match);
};

const addBy = (draft: Draft, match: Match): boolean | void => {
  const found = match.figure('a')!;
  if (found.kind === 'times' || (found.kind === 'bare' && found.lo < 10)) return false;
  if (draft.pours.length === 0 && !awaits(draft) && !found.plus) return false;
  pour(draft, amountOf(found, 'add')!, match);
};

const rest = (draft: Draft, match: Match): boolean | void => {
  if (draft.pours.length === 0 && !awaits(draft)) return false;
  pour(draft, 'rest', match);
};

const waitFor = (draft: Draft, match: Match): boolean | void => {
  const found = match.figure('t') ?? match.figure('n');
  if (!found) return false;
  const value = found.kind === 'bare' ? said(found) : timeOf(found);
  if (value === null || draft.pours.length === 0) return false;
  if (found.kind === 'bare' && (found.lo < 10 || found.hi > 120)) return false;
  awaitWhat(draft, found.kind === 'clock' ? { atS: value } : { waitS: value }, match);
  place(draft, `pours.${draft.pours.length + 1}`, match);
};

const WAIT =
  '(?:wait|waiting|rest|rests|pause|hold|sit|leave it|let it sit|let it rest|let it bloom|let that sit|leave it alone|let it stand|give it|give that|count|count to|count up to|steep) ';

/** Of a pour that is named, by its words: the last, or the first where “only” or “first” says so. */
function deed(draft: Draft, match: Match, then: 'swirl' | 'stir'): boolean | void {
  const words = wordsOf(match);
  const which = /first/.test(words) ? 'first' : /each|every/.test(words) ? 'each' : 'last';
  // Of a pattern nothing is laid out before the whole text is read.
  if (draft.series.length > 0) draft.deeds.push({ which, then });
  else if (draft.pours.length === 0) return false;
  else
    for (const each of which === 'each' ? draft.pours : [draft.pours.at(which === 'first' ? 0 : -1)!])
      each.then = then;
  place(draft, 'pours', match);
}

const HOW =
  '(?:it |gently |gentle |well |a |little |quick |quickly |hard |everything |the |bed |slurry |brewer |dripper |cone |through |carefully |with |chopstick |spoon |small |and |around |back and forth |to |get |all |wet |once more |again |together |under )*';
const WHEN =
  "(?:(?:right |once |twice )?(?:after|afterwards|when|once|at)(?: (?:it's|it is|that|this|them|each|every|the|end|all|in|pour|one|first|only|of|is|everything|water|has|gone|bloom|very))* |at the end )?";

export const POURS: R[] = [
  rule('(?:pour|pulse|step) {n} (?:(?::|–|\\|) )*(?=when|<|to |\\()', (draft, match) => {
    if (match.figure('n')!.lo > 20 || !atLineStart(match)) return false;
    draft.next = { ...draft.next, isNamed: true };
  }),
  // Pours in a pattern.
  rule(
    '{n:count} (?:more |equal |even |further |single )*(?:pours|pulses|portions|goes|parts|additions|lots) (?:of |, |at |each |one |roughly |about |: )*{gn:g} (?:each )?(?:(?:, |– )?(?:{s:every} apart |one every {s:each} |every {s:other} |{s:between} between (?:them |each )?))?',
    series,
  ),
  rule(
    '{n:count} (?:more |equal |even |further )*(?:pours|pulses|portions|parts|additions|lots) (?:, |– )?(?:{s:every} apart |one every {s:each} |every {s:other} )',
    series,
  ),
  rule(
    "(?:then |and |i go |go |pour |add |in pulses of |pulses of |portions of )*{g} (?:at a time|each|a time|pulses|pours)? ?(?:, )?(?:every|each) {s:every} (?:, )?(?:until|till|up to|to|till you reach) (?:(?:the|scale|says|reads|shows|it|you|reach|you're|at|get|to|is) )*{gn:until} ",
    series,
  ),
  rule(
    "every {s:every} (?:, )?(?:another |add |pour )?{g} (?:, )?(?:until|till|up to|to) (?:(?:the|scale|says|reads|shows|it|you|reach|you're|at|get|to|is) )*{gn:until} ",
    series,
  ),

  rule('{n:count} {g} (?:each )?(?:, )?(?:{s:every} apart |(?:one )?every {s:each} )', series),

  rule(
    '{n:count} (?:more |equal |even )*pours (?:up )?(?:to|until) {gn:until} (?:(?:, )?{s:every} apart )?',
    series,
  ),

  // A bloom.
  rule(
    `${FIRST}(?:: |– |with |of |, |is |to |for |pour )*{a} (?:(?:for|, |–|and|wait|water|of|leave it|give it|let it sit|sit|coffee|rest|hold|at|the|dose|times) )*(?:, )?{t} `,
    bloomBy(),
  ),
  rule(
    `${FIRST}(?:: |– |with |of |, |is |to |pour )*{a} (?:the dose |the weight of the coffee |the coffee )?(?:of )?(?:water )?`,
    bloomBy(),
  ),
  rule(`{a} ${TO_WET}`, (draft, match) => {
    const found = match.figure('a')!;
    if (found.kind === 'percent' || (found.kind === 'times' && !/bloom/.test(wordsOf(match)))) return false;
    return bloomBy()(draft, match);
  }),
  rule(
    "(?:first|first pour|start|start with|begin with|1st pour|pour 1|wet it|wet the bed|wet everything|starting with) (?:(?:is|of|with|by|at|pour|the|:|–|about) )*{n:x} (?:times )?(?:the dose |the weight of the coffee |the coffee )(?:, )?(?:(?:so|that's|which is) )?(?:{gn:a} (?:then )?)?",
    (draft, match) => {
      const given = match.figure('a');
      if (draft.pours.length > 0) return false;
      pour(draft, given ? { toG: said(given) } : { timesDose: match.figure('x')!.lo }, match, {
        isBloom: true,
      });
    },
  ),
  rule(
    '(?:first|start|start with|start by pouring|begin with|starting with|first pour|wet it|wet the bed|wet everything) (?:(?:is|of|with|by|at|pour|the|:|–|about|a|,) )*{gn:a} ',
    bloomBy(),
  ),
  rule(
    `(?:(?:double|twice) the dose |{x} (?:the dose|the weight of the coffee|the coffee) )(?:of water )?(?:for (?:the )?bloom |to bloom )?`,
    (draft, match) => {
      if (draft.pours.length > 0) return false;
      pour(draft, { timesDose: match.figure('x')?.lo ?? 2 }, match, { isBloom: true });
    },
  ),

  rule("(?:, )?that's (?:the |your |my )*bloom ", (draft) => (draft.pours.length === 1 ? undefined : false)),
  // When.
  rule(
    '(?:when|once|as soon as|until|till) (?:(?:the|you|it|can|just|about|its|about) )*(?:bed|surface|stream|water|top|coffee|level|drips?|see the bed|water level) (?:(?:has|is|to|starts|begins|about|just|almost|nearly|been|have|again|only) )*(?:settled|show|shows|showing|breaks?|dry|drops?|drips?|sunk|sinks?|flat|gone|down|through|break|visible|slows?|bare|dull|dimples?|stops?|drained)? ?(?:again |down |a little |by a finger |through )*(?:(?:\\( )?(?:about |at |around )*{k} (?:\\) )?)?',
    (draft, match) => {
      if (draft.pours.length === 0) return false;
      const at = match.figure('k');
      draft.next = { ...draft.next, cue: cueIn(match), ...(at ? { atS: said(at) } : {}) };
      place(draft, `pours.${draft.pours.length + 1}`, match);
    },
  ),
  rule('when you can (?:just |about )*see the bed (?:again )?', (draft, match) => {
    if (draft.pours.length === 0) return false;
    draft.next = { ...draft.next, cue: cueIn(match) };
    place(draft, `pours.${draft.pours.length + 1}`, match);
  }),
  rule(
    `${WAIT}(?:(?:for|till|until|about|around|,|what|a|it|another|me|just|say) )*(?=when|the stream|the bed|you can|till|until|for the stream|for the bed)(?:for )?(?:the )?(?=stream|bed|when|you|till|until)`,
    () => undefined,
  ),
  rule(
    '(?:wait |waits )?(?:for |till |until )*(?:the )?(?:stream|drip|dripping|flow) (?:to )?(?:breaks?|stops?|slows?) (?:again |up )*',
    (draft, match) => {
      if (draft.pours.length === 0) return false;
      draft.next = { ...draft.next, cue: cueIn(match) };
      place(draft, `pours.${draft.pours.length + 1}`, match);
    },
  ),
  rule(`${WAIT}(?:(?:for|till|until|about|around|,|what|a|it|another|say|just|me|to) )*{t} `, waitFor),
  rule(`(?:and |then |, )*(?:wait|count to|count|rest|hold|pause) (?:for )?{n} (?!more|pours)`, waitFor),
  rule('{s:t} (?:(?:rest|wait|pause|bloom|later|of waiting|bloom time|of rest) )', waitFor),

  // How much, after its time.
  rule(
    "(?:pour |add |go |bring it |take it |fill |fill it |top up |top it up |finish |up |on |keep going |carry on |slowly |steadily |with water )*(?:up )?(?:to|until|till|til|reach|reaching) (?:(?:the|scale|says|reads|shows|it|you|reach|about|around|have|see|hit|you've got|a|total|of|is|:) )*{a} (?:total |in all |on the scale |in total )?",
    toBy,
  ),
  rule(
    '(?:then |and |, )*(?:add|another|pour another|add another|\\+|pour in another|go another|give it another) (?:(?:about|around|another|of|the|a) )*{a} (?:more )?(?:water )?',
    addBy,
  ),
  rule('(?:then |and |add |pour )*{a} more (?:water )?', addBy),
  rule(
    "(?:then |and |, |with |give it |pour |add |finish with |in goes |goes )*(?:the rest|whatever's left|what's left|whatever is left|what is left|the remainder|the remaining(?: water)?|all the rest|rest) (?:of (?:the|it|the water) )?(?:in |slowly |same way |goes in |of the water )*(?:in one go |in one |at once )?",
    (draft, match) =>
      /(?:^| )rest $/.test(wordsOf(match)) &&
      !awaits(draft) &&
      !/the rest/.test(wordsOf(match)) &&
      !standsAlone(match)
        ? false
        : rest(draft, match),
  ),
  rule('(?:and |then |, )*(?:to|till|until) the (?:end|total|top) ', (draft, match) =>
    draft.pours.length === 0 ? false : draft.pours.at(-1)!.amount === 'rest' ? undefined : rest(draft, match),
  ),
  rule(
    '(?:in |all in |as )?(?:one|a single) (?:long |slow |steady |continuous |single )*(?:pour|go|stream) (?!of|to |until |up |<)',
    (draft, match) => {
      if (draft.pours.length > 0)
        return awaits(draft) && / pour| stream/.test(wordsOf(match)) ? rest(draft, match) : undefined;
      if (!knowsWater(draft)) return false;
      pour(draft, 'rest', match);
    },
  ),
  rule('(?:and |then )?(?:finish|finish it|finish off|finish up|top it off) (?=[.,¶]|$)', (draft, match) =>
    draft.next.cue ? rest(draft, match) : false,
  ),
  rule(
    '(?:then |and |, )*(?:one |a )?(?:single |long |slow |thin |steady )*(?:pour|stream|go) (?=(?:in|into) the|to the end)',
    () => undefined,
  ),
  rule(
    '(?:pour |add |go |then |and |so )*{g:a} (?:of )?(?:hot )?(?:water )?(?:on |over |in )?',
    (draft, match) => {
      const found = match.figure('a')!;
      const speaks =
        awaits(draft) ||
        found.plus ||
        (/pour|add/.test(wordsOf(match)) && knowsWater(draft)) ||
        (/^then|^and/.test(wordsOf(match)) && draft.pours.length > 0);
      if (!speaks) return false;
      pour(draft, amountOf(found, 'bare')!, match);
    },
  ),
  rule(
    '(?:then |and )*(?:pour|add|go|bring it|then|and then) (?:in |with |about |around |it )*{a} ',
    (draft, match) => {
      const found = match.figure('a')!;
      if (found.kind === 'times' || found.lo < 20 || !knowsWater(draft)) return false;
      if (!/pour|add/.test(wordsOf(match)) && draft.pours.length === 0) return false;
      pour(draft, amountOf(found, /add/.test(wordsOf(match)) ? 'add' : 'bare')!, match);
    },
  ),
  rule(
    '{gn:a} (?=(?:right |straight |just )?(?:in|into|on|over) the (?:centre|center|middle|edge))',
    (draft, match) => (knowsWater(draft) ? bloomBy()(draft, match) : false),
  ),
  rule('{c} for (?:the )?first {g} ', (draft, match) => {
    if (draft.pours.length > 0) return false;
    const { lo, hi } = match.figure('c')!;
    pour(draft, { toG: said(match.figure('g')!) }, match, {
      isBloom: true,
      waterC: said({ lo: tenth(lo), hi: tenth(hi) }),
    });
  }),
  rule('then (?:at )?{c} ', (draft, match) => {
    const { lo, hi } = match.figure('c')!;
    if (draft.pours.length !== 1) return false;
    state(draft, 'waterC', said({ lo: tenth(lo), hi: tenth(hi) }), match);
  }),
  // A row of a table: its amount may be bare.
  rule('(?:\\+ )?{a} ', (draft, match) => {
    const found = match.figure('a')!;
    if (
      found.kind === 'times' ||
      !(awaits(draft) || ((found.plus || found.kind === 'percent') && draft.pours.length > 0))
    )
      return false;
    if (found.kind === 'bare' && found.lo < 10 && !draft.inOunces) return false;
    if (
      found.kind === 'bare' &&
      !found.plus &&
      [draft.next.atS, draft.next.waitS, draft.next.isNamed].every((each) => each === undefined)
    )
      return false;
    const before = match.line.tokens[match.fromToken - 1];
    if (before?.is === 'word' && found.kind === 'bare' && !/^(?:at|clock|scale|g)$/.test(before.text))
      return false;
    pour(draft, amountOf(found, 'bare')!, match);
  }),

  // Of the pour that has just been said.
  rule(
    '(?:after |, )?(?:swirls?|swirled|swirling) (?!the ice |ice )(?:it |gently |once |twice |{x} |the brewer |the cone |the dripper |brewer |slurry |the bed |a little )*' +
      WHEN,
    (draft, match) => (/^swirl the ice/.test(wordsOf(match)) ? false : deed(draft, match, 'swirl')),
  ),
  rule('(?:a |one |quick |little |gentle |small )+swirl ' + WHEN, (draft, match) =>
    deed(draft, match, 'swirl'),
  ),
  rule(
    `(?:after |a |one |quick |gentle |little )*(?:stirs?|stirred|stirring) ${HOW}(?:{n} (?:times )?)?${WHEN}`,
    (draft, match) => deed(draft, match, 'stir'),
  ),
  rule(
    'all of it (?:thin |slow |slowly |low |, )*(?:all of it |and )*(?:in |into )?the (?:middle|centre|center) ',
    (draft, match) => {
      for (const each of draft.pours) each.path ??= 'centre';
      place(draft, 'pours', match);
    },
  ),
  ...PATHS.map(([pattern, path]) =>
    rule<Draft>(pattern, (draft, match) => {
      const last = draft.pours.at(-1);
      // Before its amount in the clause, or behind it.
      if (draft.next.path !== undefined && draft.next.path !== path) return false;
      if (leadsTo(match)) draft.next = { ...draft.next, path };
      else if (last && isSameClause(draft, match) && last.path === undefined) last.path = path;
      else return false;
      place(draft, 'pours', match);
    }),
  ),
  rule('(?:at |with |water at )?{c} ', (draft, match) => {
    const value = match.figure('c')!;
    const last = draft.pours.at(-1);
    if (!last || !isSameClause(draft, match)) return false;
    last.waterC = said({ lo: tenth(value.lo), hi: tenth(value.hi) });
    place(draft, 'pours', match);
  }),
  rule('(?:at |with |of )?(?:room temperature|cold|cool|room) (?:water )?', (draft, match) => {
    const last = draft.pours.at(-1);
    if (!last || !isSameClause(draft, match)) return false;
    last.waterC = 'room';
    place(draft, 'pours', match);
  }),
  // Right behind its amount: “+60 @ 0:30”, “to 260 g (1:15)”, “190 g 0:40–1:00”.
  rule(
    '(?:at |@ |from |\\( )*(?:about |around |at )*{t} (?:mark )?(?:\\) )?(?=[.,¶|]|$|and |then )',
    (draft, match) => {
      const last = draft.pours.at(-1);
      const figure = match.figure('t')!;
      const time = timeOf(figure);
      const isSpan = figure.kind === 'span' && !/at |@ /.test(wordsOf(match));
      if (!last || time === null || isSpan || draft.lastPourEnds !== match.fromToken) return false;
      delete last.waitS;
      if (draft.pours.length > 1) last.atS = typeof time === 'number' ? time : time[0];
      else if ((typeof time === 'number' ? time : time[0]) > 3) return false;
      place(draft, `pours.${draft.pours.length}`, match);
    },
  ),
  // By when it is in says nothing of when it begins.
  rule('by (?:about |around )*{k} ', () => 'pass'),
  // “to the end at a minute fifteen”: behind its amount, and nothing follows that it could be about.
  rule(
    '(?:, )?(?:at|@) (?:about |around )*{t} (?=[.¶|]|$|, (?!to |add |another |up |the rest|pour |whatever))',
    (draft, match) => {
      const last = draft.pours.at(-1);
      const time = timeOf(match.figure('t'));
      if (
        !last ||
        time === null ||
        !isSameClause(draft, match) ||
        last.atS !== undefined ||
        last.waitS !== undefined
      )
        return false;
      last.atS = time;
      place(draft, `pours.${draft.pours.length}`, match);
    },
  ),
  rule(
    '(?:and |then |, )*(?:at|from|after|@) (?:about |around |the )*{t} (?:mark |in )?(?:(?:,|:|–|on) )*',
    startAt,
  ),
  rule('{k:t} (?:(?:,|:|–|\\|) )*', startAt),
  rule('(?:, |and )*{s:t} (?=[.,¶|]|$|then |and )', (draft, match) => {
    // How long the bloom before it is left: “first 50 g, drop by drop, 45 s”.
    const last = draft.pours.at(-1);
    if (draft.pours.length !== 1 || !last || draft.next.waitS !== undefined || draft.next.atS !== undefined)
      return false;
    if (middle(said(match.figure('t')!)) > 120) return false;
    return waitFor(draft, match);
  }),
];

function startAt(draft: Draft, match: Match): boolean | void {
  const time = timeOf(match.figure('t'));
  if (time === null) return false;
  awaitWhat(draft, { atS: time }, match);
}

function series(draft: Draft, match: Match): boolean | void {
  const [count, each, until] = [match.figure('count'), match.figure('g'), match.figure('until')];
  const every =
    match.figure('every') ?? match.figure('each') ?? match.figure('other') ?? match.figure('between');
  if (count && (count.lo < 2 || count.lo > 20)) return false;
  if (!every && !each && !until) return false;
  draft.series.push({
    start: {
      ...(draft.next.atS === undefined ? {} : { atS: draft.next.atS }),
      ...(draft.next.waitS === undefined ? {} : { waitS: draft.next.waitS }),
    },
    after: draft.pours.length,
    ...(count ? { count: count.lo } : {}),
    ...(each ? { eachG: said(each) } : {}),
    ...(every ? { everyS: said(every) } : {}),
    ...(until ? { untilG: said(until) } : {}),
  });
  draft.next = {};
  isMet(draft);
  draft.lastPourEnds = match.toToken;
  place(draft, 'pours', match);
}

/** Whether nothing but words and commas stands between the last pour and this. */
function isSameClause(draft: Draft, { line, fromToken }: Match): boolean {
  if (draft.lastPourEnds < 0) return false;
  return line.tokens
    .slice(draft.lastPourEnds, fromToken)
    .every((token) => token.is !== 'stop' || !/[.¶]/.test(token.text));
}

/** Whether nothing else stands in the clause. */
const standsAlone = ({ line, fromToken, toToken }: Match): boolean =>
  [line.tokens[fromToken - 1], line.tokens[toToken]].every(
    (token) => token === undefined || token.is === 'stop',
  );

/** Whether an amount follows before the clause ends. */
function leadsTo({ line, toToken }: Match): boolean {
  for (const token of line.tokens.slice(toToken, toToken + 8)) {
    if (token.is === 'stop' && /[.¶,|]/.test(token.text)) return false;
    if (token.is === 'figure') return true;
    if (token.is === 'word' && /^(?:rest|end|left)$/.test(token.text)) return true;
  }
  return false;
}

/** What no other rule understood: an amount that fits between coffee and water is a pour, since people leave the word out. */
export const LAST: R[] = [
  rule('{g} ', (draft, match) => {
    const found = match.figure('g')!;
    const [dose, water, ratio] = [first(draft, 'doseG'), first(draft, 'waterG'), first(draft, 'ratio')];
    if (dose === undefined || (water === undefined && ratio === undefined) || found.lo < 20) return false;
    const waterG = water === undefined ? middle(dose) * ratio! : middle(water);
    // A first pour is no more than the bed can take.
    if (found.lo > waterG + 2 || (draft.pours.length === 0 && found.lo > 4.5 * middle(dose))) return false;
    if (draft.pours.length > 0 && Math.abs(found.lo - waterG) <= 2) return;
    pour(draft, amountOf(found, 'bare')!, match);
  }),
  rule('(?:about |around |roughly )?{n:t} (?:, {n:to} )?\\. $', (draft, match) => {
    // “Two thirty.”, said last.
    const before = match.line.tokens[match.fromToken - 1];
    const time = match.figure('t')!.clockS;
    if (before?.is !== 'stop' || !/[.¶]/.test(before.text) || draft.pours.length === 0) return false;
    if (time === undefined || time < 90 || has(draft, 'doneS')) return false;
    state(draft, 'doneS', time, match);
  }),
  rule('(?:about |around |roughly )?{s:t} (?=[.¶]|$)', (draft, match) => {
    const before = match.line.tokens[match.fromToken - 1];
    const isAlone = before?.is === 'stop' && /[.¶]/.test(before.text);
    if (!isAlone || draft.pours.length === 0 || match.figure('t')!.lo < 90) return false;
    state(draft, 'doneS', said(match.figure('t')!), match);
  }),
];

const tenth = (value: number): number => Math.round(value * 10) / 10;
export type { Said };

const atLineStart = ({ line, fromToken }: Match): boolean => {
  const before = line.tokens[fromToken - 1];
  return before === undefined || (before.is === 'stop' && /[¶.|]/.test(before.text));
};
