import { weedForms, type WeedForm } from './vocabulary.js'

/** Forms of the weeds of the library, from common knowledge; what flowers once after some years counts as biennial. */
const FORMS: Readonly<Record<WeedForm, readonly string[]>> = {
  annual: [
    'barnyard-grass',
    'cheatgrass',
    'chickweed',
    'common-purslane',
    'henbit',
    'himalayan-balsam',
    'lambsquarters',
    'large-crabgrass',
    'redroot-pigweed',
    'shepherds-purse',
  ],
  biennial: ['common-burdock', 'garlic-mustard', 'giant-hogweed', 'poison-hemlock', 'wild-parsnip'],
  clonal: [
    'common-reed',
    'creeping-thistle',
    'field-bindweed',
    'japanese-knotweed',
    'lesser-celandine',
    'purple-loosestrife',
    'quackgrass',
    'yellow-nutsedge',
  ],
  woody: [
    'common-buckthorn',
    'gorse',
    'himalayan-blackberry',
    'japanese-barberry',
    'multiflora-rose',
    'oriental-bittersweet',
    'porcelain-berry',
    'scotch-broom',
    'tree-of-heaven',
  ],
}
const byId = new Map(weedForms.flatMap((form) => FORMS[form].map((id) => [id, form] as const)))

/** How a weed of the library lives; undefined for what is no weed of it. */
export const weedForm = (organismId: string): WeedForm | undefined => byId.get(organismId)
