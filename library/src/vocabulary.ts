/** Parts of a plant or a place on which a sign is seen. */
export const plantParts = ['leaf', 'stem', 'bud', 'flower', 'fruit', 'root', 'plant', 'ground'] as const
export type PlantPart = (typeof plantParts)[number]

/** Signs as people name them when they do not know yet what they see. */
export const signKinds = [
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
export type SignKind = (typeof signKinds)[number]

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
