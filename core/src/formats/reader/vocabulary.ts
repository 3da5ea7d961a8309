/**
 * The words of the trade that a reader knows: methods, filters, grinds by name and by feel.
 */
import type { MethodId, PlainFilter } from '../../recipe';

/** Longer names first, so that an air press is no press. */
export const METHOD_NAMES: readonly [string, MethodId][] = [
  ['air ?press ', 'air-press'],
  [
    '(?:pressure pot |stove pot |stove ?top (?:coffee )?pot |stove top (?:coffee )?pot |pot with a valve )',
    'pressure-pot',
  ],
  [
    '(?:(?:long )?handled pot |(?:little |small )?pot with (?:the|a) long handle |foam pot |cezve |ibrik )',
    'foam-pot',
  ],
  ['(?:siphon |syphon |vacuum pot )', 'siphon'],
  ['hourglass (?:carafe )?', 'hourglass'],
  ['flat (?:bottom |bottomed |bed )(?:dripper |brewer |cone )?', 'flat'],
  ['flat (?=<|dripper|brewer|, <|: <)', 'flat'],
  ['(?:cloth sock |sock |flannel )', 'sock'],
  ['(?:cone |conical )(?:dripper |brewer )?', 'cone'],
  [
    '(?:(?:big |little |small |large |glass |french |my |your |our )press |press pot |plunger pot |cafetiere )',
    'press',
  ],
];
/** “Press” alone is a verb as often; it is the brewer where it stands as a thing. */
export const PRESS_NOUN =
  /(?:^|¶ |[.:] |(?:the|a|my|this|in|for|with|by|<v\d+>) )press (?=[,.:¶(–|]|<|for |with |is |i |again |brew |recipe |coffee |$)|, press (?=[,.¶]|$)/;

export const FILTERS: readonly [string, PlainFilter][] = [
  ['(?:paper filter|paper|filter) (?:is )?(?:, )?(?:the |a )?thick (?:one |kind |sort )?', 'thick-paper'],
  ['(?:thick|heavy|bonded) (?:filter )?papers? (?:filters? )?', 'thick-paper'],
  ['(?:thin |plain |white |brown |rinsed )?(?:paper |papers )(?:filters? )?', 'paper'],
  ['(?:cloth |cloths |flannel )(?:filters? )?', 'cloth'],
  ['(?:metal |steel |mesh )(?:filters? |discs? |disks? |mesh |cone )?', 'metal'],
];

/** The middle of each band, and what a hand feels or a kitchen has: craft 3.10. */
export const GRINDS: readonly [string, number][] = [
  ['(?:extra|very|super) coarse(?:ly)? ', 10],
  ['medium (?:to )?coarse(?:ly)? ', 36],
  ['medium (?:to )?fine(?:ly)? ', 58],
  ['(?:extra|very|super) fine(?:ly)? ', 78],
  ['coarse(?:ly)? ', 22],
  ['fine(?:ly)? ', 66],
  ['medium ', 48],
];
export const FEELS: readonly [string, number][] = [
  ['(?:bread ?crumbs?|bread crumbs?) ', 10],
  ['(?:broken rice|rice) ', 23],
  ['(?:cracked|coarse|crushed) pepper(?:corns?)? ', 24],
  ['(?:coarse|sea|kosher|rock) salt ', 27],
  ['(?:raw|brown|demerara|coarse) sugar ', 37],
  ['couscous ', 36],
  ['semolina ', 49],
  ['(?:coarse|rough|beach) sand ', 42],
  ['fine sand ', 58],
  ['sand ', 50],
  ['fine (?:table )?salt ', 63],
  ['(?:table|cooking|kitchen) salt ', 51],
  ['salt ', 51],
  ['(?:caster|castor|fine) sugar ', 62],
  ['(?:white |table )?sugar ', 50],
  ['(?:icing|powdered) sugar ', 85],
  ['(?:ground )?pepper ', 48],
  ['cocoa (?:powder )?', 88],
  ['(?:flour|powder|talc|talcum|dust) ', 91],
  ['thumbprint ', 75],
];
/** What “finer” and “coarser” are worth on that scale, and with “a bit” before. */
export const COMPARED = { plainly: 14, abit: 8 };
/** A paper cone's usual band, for who compares with it. */
export const USUAL_BAND: Readonly<Record<string, number>> = {
  cone: 48,
  paper: 46,
  press: 22,
  flat: 48,
  espresso: 88,
};

/** Words of the craft: what stands unread is marked where one of these is in it. */
export const CRAFT_WORDS = new Set(
  'swirl swirls swirled swirling stir stirs stirred stirring bloom blooming plunge plunger flame burner rinse rinsed bypass ice iced lid crust spiral circles centre center ring edge cloth paper metal cap flip flipped invert inverted foam steep gurgle gurgles press push spoon spoons well shake tap tamp sugar milk'.split(
    ' ',
  ),
);
