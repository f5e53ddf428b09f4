/* Words that entries, the interface and the page share. This file stands alone, so that a page can have the words without the entries. */

/** Parts of a plant or a place on which a sign is seen. */
export const plantParts = ['leaf', 'stem', 'bud', 'flower', 'fruit', 'root', 'plant', 'ground'] as const
export type PlantPart = (typeof plantParts)[number]

/** Signs as people name them when they do not know yet what they see: damage, and what does it. */
export const damageSigns = [
  'holes',
  'notches',
  'missing',
  'skeleton',
  'mines',
  'tunnel',
  'frass',
  'cut',
  'breakage',
  'eggs',
  'insects',
  'maggots',
  'webbing',
  'bags',
  'wool',
  'scales',
  'honeydew',
  'soot',
  'stippling',
  'silvering',
  'bronzing',
  'curl',
  'distorted',
  'blind',
  'gall',
  'spots',
  'powder',
  'mould',
  'blackened',
  'scorch',
  'yellowing',
  'reddening',
  'wilt',
  'stunting',
  'dieback',
  'dead',
  'rot',
  'ooze',
  'drop',
  'scars',
  'dimples',
  'stranger',
  'carpet',
] as const

/** Marks by which a plant that nobody planted is told from others. */
export const plantMarks = [
  'grassy',
  'divided',
  'lobed',
  'heart-shaped',
  'arrow-shaped',
  'paired',
  'clasping',
  'fleshy',
  'glossy',
  'felted',
  'mealy',
  'hairy',
  'scented',
  'spiny',
  'angled',
  'hollow',
  'jointed',
  'mottled',
  'woody',
  'twining',
  'rosette',
  'tall',
  'mat',
  'white',
  'yellow',
  'pink',
  'greenish',
  'umbel',
  'spike',
  'plume',
  'berries',
  'pods',
  'burs',
  'down',
  'tap-root',
  'creeping',
  'tubers',
  'orange',
] as const

export const signKinds = [...damageSigns, ...plantMarks] as const
export type SignKind = (typeof signKinds)[number]

/** Hours of the day at which something is seen, where that matters. */
export const hours = ['dawn', 'day', 'dusk', 'night'] as const

/** What a plant does in its year that is seen from the way. */
export const bloomEvents = ['bud', 'first-open', 'full-bloom', 'end', 'leaf-out', 'leaf-colour', 'fruit'] as const

/** Whom or what something may harm. */
export const hazardGroups = ['people', 'food', 'animals', 'plants', 'land-and-water', 'materials', 'spread'] as const

/** Pictures of damage that are drawn by degree, in per cent. */
export const damageDrawings = [
  'cover',
  'fruit-entries',
  'fruit-rot',
  'fruit-spots',
  'leaf-chewed',
  'leaf-curled',
  'leaf-mined',
  'leaf-powder',
  'leaf-sooty',
  'leaf-spots',
  'leaf-stippled',
  'missing-plants',
  'shoot-tips',
  'stem-tunnels',
] as const

/** Ways to act in the order in which they are thought of. */
export const methodKinds = ['prevention', 'cultural', 'mechanical', 'biological', 'chemical'] as const

/** What stands against the organism a look-alike is confused with. */
export const lookAlikeStatus = ['pest', 'disease', 'weed', 'wanted', 'native', 'beneficial', 'harmless', 'no pest'] as const

/** What a crop comes through in a year, in the order in which it does. */
export const cropStages = [
  'sown',
  'planted',
  'emerged',
  'bud-break',
  'first-flower',
  'first-female-flower',
  'petal-fall',
  'fruit-set',
  'heads-form',
  'bulbs-swell',
  'first-harvest',
  'last-harvest',
] as const
export type CropStage = (typeof cropStages)[number]

/** How a weed lives: one year, two, from roots that spread, or as wood. */
export const weedForms = ['annual', 'biennial', 'clonal', 'woody'] as const
export type WeedForm = (typeof weedForms)[number]
