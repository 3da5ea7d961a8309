/**
 * Rules for brewers that take all their water at once: stirs, the flame, the plunge; and, for every brewer, when it is done.
 */
import { awaitWhat, isMet, said, state, timeOf, type Draft, type DraftStir, type FactName } from './draft';
import { rule, type Match, type Rule } from './grammar';
import { place } from './rules-pours';

type R = Rule<Draft>;

const timed =
  (name: FactName) =>
  (draft: Draft, match: Match): boolean | void => {
    const time = timeOf(match.figure('t'));
    if (time === null) return false;
    state(draft, name as 'doneS', time, match);
  };

const ABOUT =
  '(?:(?:complete|completed|by|at|in|between|from|about|around|somewhere|is|:|–|,|should|be|it|takes|time|within|after|roughly|of|to|the|somewhere|and|under|just|for) )*';

export const DONE: R[] = [
  rule(
    `(?:it'll |it |should |be |and |all |it's |everything's |is |will |sucks |itself |that |we're |i |the |finished |has )*(?:last drop (?:falls|is)|stop|stopped|dry|drained|drain|drains|drained out|through|done|finish|finished|finishes|ready|down|drawdown|drains out|ends|end|total time|total|brew time|whole thing|lift it out|lift out|looking for|takes|take it out|cloth off|comes off|out) (?:¶ )?${ABOUT}{t} (?:or so |give or take |or thereabouts )?(?:on the clock |in all |altogether |total )?`,
    (draft, match) => {
      const figure = match.figure('t')!;
      if (figure.kind === 'bare' && figure.clockS === undefined) return false;
      return timed('doneS')(draft, match);
    },
  ),
  rule(
    '{t} (?:altogether|total|in total|all in|in all|all told|give or take|or so|overall|start to finish|from start to finish) ',
    (draft, match) => (match.figure('t')!.kind === 'bare' ? false : timed('doneS')(draft, match)),
  ),
  rule(
    '{t} (?:– |: |, |\\| )?(?:last bubbles|to the last bubbles?|until the last bubbles?|done|dry|drained|finished|all through|the end|down|bubbles) ',
    (draft, match) => (match.figure('t')!.kind === 'bare' ? false : timed('doneS')(draft, match)),
  ),
];

/** What is stirred after it is stirred then. */
const flameOffAt: R['read'] = (draft, match) => {
  const time = timeOf(match.figure('t'));
  if (time === null) return false;
  state(draft, 'flameOffS', time, match);
  draft.next = { ...draft.next, atS: time };
};

const FLAME = '(?:flame|burner|heat|fire|gas|lamp)';

function stir(draft: Draft, match: Match): boolean | void {
  const [counted, lasting] = [match.figure('n'), match.figure('s')];
  const at = timeOf(match.figure('t')) ?? draft.next.atS ?? null;
  const made: DraftStir = {
    ...(at === null ? {} : { atS: at }),
    ...(counted ? { times: said(counted) } : {}),
    ...(lasting ? { forS: said(lasting) } : {}),
  };
  if (at !== null) isMet(draft);
  draft.stirs.push(made);
  place(draft, 'stirs', match);
}

const STIR_HOW =
  '(?:it |gently |gentle |well |slowly |hard |everything |the |coffee |grounds |slurry |through |carefully |with |a |spoon |paddle |stick |back and forth |about |around |for |again |now |once more |in |bamboo |good |quickly |vigorously |once |all )*';

export const IMMERSED: R[] = [
  rule('(?:and |then )*again {n} (?:times )?(?:at {t} )?', stir),
  rule(
    '(?:press|plunge|push) (?:: |from )?{k:t} (?:and take {s} )?(?:and |for |over |taking |it )*(?=[.,¶|<]|$)',
    (draft, match) => {
      const { lo, hi } = match.figure('t')!;
      state(draft, 'plungeS', lo, match);
      const lasts = match.figure('s');
      if (lasts) state(draft, 'pressForS', said(lasts), match);
      else if (hi > lo) state(draft, 'pressForS', hi - lo, match);
    },
  ),
  rule(`(?:give it |then |and |a |good |quick )*(?:stirs?|stirring) ${STIR_HOW}(?:for )?{s} `, stir),
  rule(`{s} (?:of )?(?:(?:gentle|slow|good|quick|vigorous) )*(?:stir|stirring|stirs) `, stir),
  rule(
    `(?:give it |then |and )*{n} (?:more |gentle |slow |quick |good |big )*stirs? (?:at {t} )?`,
    (draft, match) => {
      const n = match.figure('n')!;
      if (
        n.isWeak &&
        !/ more /.test(
          ` ${match.line.text.slice(match.line.starts[match.fromToken], match.line.starts[match.toToken])}`,
        )
      ) {
        draft.stirs.push({ times: 1 });
        place(draft, 'stirs', match);
        return;
      }
      return stir(draft, match);
    },
  ),
  rule(
    `(?:give it |then |and |a |good |quick )*(?:stir|stirs) (?:: )?${STIR_HOW}{n} (?:times |more )?(?:at {t} )?`,
    stir,
  ),
  rule(
    '(?:at {t} )?(?:break|crack|push down|stir) (?:the |through the )*crust (?:with (?:a|the) spoon )?(?:at {k} )?',
    (draft, match) => {
      const at = timeOf(match.figure('t')) ?? timeOf(match.figure('k')) ?? draft.next.atS;
      isMet(draft);
      draft.stirs.push(at === undefined || at === null ? {} : { atS: at });
      place(draft, 'stirs', match);
    },
  ),
  rule(`(?:give it |another |then |and |a |one |good |quick |more )*(?:stir|stirred) ${STIR_HOW}`, stir),

  rule(
    `(?:and |then )*(?:${FLAME} off|${FLAME} away|off the ${FLAME}|kill the ${FLAME}|${FLAME} out|turn (?:off the ${FLAME}|the ${FLAME} off)|take the ${FLAME} away|remove the ${FLAME}) (?:(?:at|after|by|:|when|about|around|the|first|gurgle|sputter|hiss|bubbles|sign|of|it|starts|to|,) )*{t} `,
    flameOffAt,
  ),
  rule(
    `(?:{s} (?:later |then |and |, )+)?(?:and |then )*(?:${FLAME} off|${FLAME} away|off the ${FLAME}|kill the ${FLAME}|${FLAME} out|turn (?:off the ${FLAME}|the ${FLAME} off)|take the ${FLAME} away|remove the ${FLAME}) `,
    (draft, match) => {
      const { atS } = draft.next;
      const lasts = match.figure('s');
      const waitS = lasts ? said(lasts) : draft.next.waitS;
      if (atS !== undefined) state(draft, 'flameOffS', atS, match);
      else if (waitS !== undefined) state(draft, 'steepS', waitS, match);
      else return;
      isMet(draft);
      delete draft.next.waitS;
    },
  ),

  rule(
    `(?:at {t} )(?:put |the |plunger |in |and |lid |on |, |then |gently |slowly )*(?:press|push|plunge) (?:(?:it|down|slowly|gently|all|the|way|plunger|just|to|surface|,|steadily) )*(?:(?:for|over|in|,|taking) )*(?:{s} )?`,
    (draft, match) => {
      const time = timeOf(match.figure('t'));
      if (time === null) return false;
      state(draft, 'plungeS', time, match);
      const lasts = match.figure('s');
      if (lasts) state(draft, 'pressForS', said(lasts), match);
    },
  ),
  rule(
    `(?:and |then |, )*(?:press|push|plunge|pressing|plunger down|push down|press down) (?:(?:it|down|slowly|gently|all|the|way|plunger|just|to|surface|steadily|slow|straight) )*(?:(?:at|after|from|@|:) )(?:about )?{t} (?:, )?(?:(?:slow|slowly|gently|gentle|,|steady|for|over|taking|about|in) )*(?:{s} )?`,
    (draft, match) => {
      const time = timeOf(match.figure('t'));
      if (time === null) return false;
      state(draft, 'plungeS', time, match);
      const lasts = match.figure('s');
      if (lasts) state(draft, 'pressForS', said(lasts), match);
    },
  ),
  rule(
    `{t:wait} (?:on (?:the|my) (?:timer|clock) )?(?:and |then |, |and then )+(?:press|push|plunge) (?:(?:it|down|slowly|gently) )*(?:for {s} )?`,
    (draft, match) => {
      const time = timeOf(match.figure('wait'));
      if (time === null) return false;
      state(draft, 'steepS', time, match);
      const lasts = match.figure('s');
      if (lasts) state(draft, 'pressForS', said(lasts), match);
    },
  ),
  rule(
    '(?:and |then |, |a )*(?:press|push|plunge|pressing|plunging) (?:(?:it|down|slowly|gently|all|the|way|plunger|just|to|surface|steadily|takes|slow|,|should|take|no|hurry|rush|easy) )*(?:(?:for|over|in|,|about|taking|takes) )*{s} (?:(?:all the way|down|long|to the bottom) )*',
    (draft, match) => {
      state(draft, 'pressForS', said(match.figure('s')!), match);
      fromNext(draft, match);
    },
  ),
  rule(
    '(?:and |then )*(?:press|push|plunge|plunger down) (?:(?:it|down|slowly|gently|all|the|way|plunger|just|to|surface|steadily) )*',
    (draft, match) => {
      if (
        draft.method === 'press' &&
        /^(?:press )$/.test(
          match.line.text.slice(match.line.starts[match.fromToken], match.line.starts[match.toToken]),
        )
      )
        return false;
      return fromNext(draft, match);
    },
  ),
  rule('(?:take it |take |it comes |comes )?off (?:(?:at|after|about|around) )+{t} ', (draft, match) =>
    draft.method === 'siphon' || draft.method?.endsWith('pot') ? flameOffAt(draft, match) : false,
  ),
  rule(
    `(?:before |over |on |onto )(?:it goes |you put it )?(?:on )?(?:the |a )?${FLAME} (?:goes on |is lit )?`,
    (draft, match) => place(draft, 'flame', match),
  ),
  rule(`(?:(?:low|small|lowest|smallest|medium|gentle|high|tiny) )+${FLAME} (?:you have )?`, (draft, match) =>
    place(draft, 'flame', match),
  ),
  rule(
    '(?:walk away|go away|forget it|forget about it|do nothing|let it be|leave it be|set (?:a|the) timer) (?:for |to )*{s:t} ',
    (draft, match) => awaitWhat(draft, { waitS: said(match.figure('t')!) }, match),
  ),
  rule(
    '(?:let it |leave it |and |then )*(?:steep|steeps|brew|brews|sit|sits|stand|stands|wait|leave|leave it|rest|infuse) (?:(?:it|for|alone|about|around|there|another|till|until|to) )*{t} ',
    (draft, match) => {
      const figure = match.figure('t')!;
      const time = timeOf(figure);
      if (time === null) return false;
      if (figure.kind === 'clock' || figure.kind === 'bare') awaitWhat(draft, { atS: time }, match);
      else if (
        /^(?:let it |leave it |and |then )*(?:wait|leave|rest|sit|sits)/.test(
          match.line.text.slice(match.line.starts[match.fromToken], match.line.starts[match.toToken]),
        ) &&
        draft.method !== 'press'
      )
        awaitWhat(draft, { waitS: time }, match);
      else state(draft, 'steepS', time, match);
    },
  ),
  rule('{k:t} (?=[.¶]|$)', (draft, match) => {
    // A pot's time by itself is when it is done.
    const before = match.line.tokens[match.fromToken - 1];
    const isAlone = before?.is === 'stop' && /[.¶]/.test(before.text);
    return isAlone && draft.method?.endsWith('pot') ? timed('doneS')(draft, match) : false;
  }),
  rule('{s:t} (?=[.¶])', (draft, match) => {
    // A sentence by itself: so long it is left.
    const before = match.line.tokens[match.fromToken - 1];
    const isAlone = before?.is === 'stop' && /[.¶]/.test(before.text);
    if (!isAlone || match.figure('t')!.lo < 45) return false;
    awaitWhat(draft, { waitS: said(match.figure('t')!) }, match);
  }),
  rule('{s:t} (?:plunge|press|push) ', timed('steepS')),
  rule('{s:t} (?:steep|of steeping|steeping|on the timer|on the clock|brew|immersion) ', timed('steepS')),
  rule('(?:steep|steeping|brew time|immersion) (?:time )?(?:: |– )?{t} ', timed('steepS')),
  rule('(?:cap on|cap|lid on|lid|flip|all in|everything in|in) (?:(?:at|by|on|the) )+{t} ', () => undefined),
  rule('(?:and |then )*swirl (?:it |gently |the brewer |once more )*(?:{n} (?:times )?)?', (draft, match) =>
    place(draft, 'swirls', match),
  ),
  rule('{s} of (?:leaving|waiting|doing|nothing|patience) ', () => 'pass'),
  rule('(?:at|from|by|until|till|@) (?:about |around |the )*{t} (?:(?:,|:|–) )*', (draft, match) => {
    const time = timeOf(match.figure('t'));
    if (time === null) return false;
    awaitWhat(draft, { atS: time }, match);
  }),
  rule('{k:t} (?:(?:,|:|–) )*', (draft, match) =>
    awaitWhat(draft, { atS: timeOf(match.figure('t'))! }, match),
  ),
];

function fromNext(draft: Draft, match: Match): void {
  // A time that something else has been done at is not the plunge's.
  if (!draft.waiting) return;
  const { atS, waitS } = draft.next;
  if (atS !== undefined) state(draft, 'plungeS', atS, match);
  else if (waitS !== undefined) state(draft, 'steepS', waitS, match);
  isMet(draft);
  delete draft.next.waitS;
}
