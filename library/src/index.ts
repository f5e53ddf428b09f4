import appleScab from '../pathogens/apple-scab.json' with { type: 'json' }
import fireBlight from '../pathogens/fire-blight.json' with { type: 'json' }
import greyMould from '../pathogens/grey-mould.json' with { type: 'json' }
import onionDownyMildew from '../pathogens/onion-downy-mildew.json' with { type: 'json' }
import potatoEarlyBlight from '../pathogens/potato-early-blight.json' with { type: 'json' }
import potatoLateBlight from '../pathogens/potato-late-blight.json' with { type: 'json' }
import tomatoEarlyBlight from '../pathogens/tomato-early-blight.json' with { type: 'json' }
import tomatoLateBlight from '../pathogens/tomato-late-blight.json' with { type: 'json' }
import vineDownyMildew from '../pathogens/vine-downy-mildew.json' with { type: 'json' }
import vinePowderyMildew from '../pathogens/vine-powdery-mildew.json' with { type: 'json' }
import apple from '../indicators/apple.json' with { type: 'json' }
import blackLocust from '../indicators/black-locust.json' with { type: 'json' }
import catalpa from '../indicators/catalpa.json' with { type: 'json' }
import chicory from '../indicators/chicory.json' with { type: 'json' }
import commonLilac from '../indicators/common-lilac.json' with { type: 'json' }
import elderberry from '../indicators/elderberry.json' with { type: 'json' }
import forsythia from '../indicators/forsythia.json' with { type: 'json' }
import linden from '../indicators/linden.json' with { type: 'json' }
import serviceberry from '../indicators/serviceberry.json' with { type: 'json' }
import cherryFruitFly from '../organisms/cherry-fruit-fly.json' with { type: 'json' }
import codlingMoth from '../organisms/codling-moth.json' with { type: 'json' }
import europeanCornBorer from '../organisms/european-corn-borer.json' with { type: 'json' }
import fungusGnats from '../organisms/fungus-gnats.json' with { type: 'json' }
import grapeBerryMoth from '../organisms/grape-berry-moth.json' with { type: 'json' }
import onionMaggot from '../organisms/onion-maggot.json' with { type: 'json' }
import onionThrips from '../organisms/onion-thrips.json' with { type: 'json' }
import orientalFruitMoth from '../organisms/oriental-fruit-moth.json' with { type: 'json' }
import peachTwigBorer from '../organisms/peach-twig-borer.json' with { type: 'json' }
import pearPsylla from '../organisms/pear-psylla.json' with { type: 'json' }
import twoSpottedMite from '../organisms/two-spotted-mite.json' with { type: 'json' }
import westernFlowerThrips from '../organisms/western-flower-thrips.json' with { type: 'json' }
import barnyardGrass from '../weeds/barnyard-grass.json' with { type: 'json' }
import chickweed from '../weeds/chickweed.json' with { type: 'json' }
import creepingThistle from '../weeds/creeping-thistle.json' with { type: 'json' }
import himalayanBalsam from '../weeds/himalayan-balsam.json' with { type: 'json' }
import japaneseKnotweed from '../weeds/japanese-knotweed.json' with { type: 'json' }
import lambsquarters from '../weeds/lambsquarters.json' with { type: 'json' }
import scotchBroom from '../weeds/scotch-broom.json' with { type: 'json' }
import wildParsnip from '../weeds/wild-parsnip.json' with { type: 'json' }
import { spellOut } from './authored.js'
import { indicatorSchema, organismSchema, type Indicator, type Organism } from './schema.js'

export * from './model.js'
export * from './schema.js'
export { spellOut } from './authored.js'

const animals = [
  cherryFruitFly,
  codlingMoth,
  europeanCornBorer,
  fungusGnats,
  grapeBerryMoth,
  onionMaggot,
  onionThrips,
  orientalFruitMoth,
  peachTwigBorer,
  pearPsylla,
  twoSpottedMite,
  westernFlowerThrips,
]
const pathogens = [
  appleScab,
  fireBlight,
  greyMould,
  onionDownyMildew,
  potatoEarlyBlight,
  potatoLateBlight,
  tomatoEarlyBlight,
  tomatoLateBlight,
  vineDownyMildew,
  vinePowderyMildew,
]
const weeds = [barnyardGrass, chickweed, creepingThistle, himalayanBalsam, japaneseKnotweed, lambsquarters, scotchBroom, wildParsnip]
const bloomPlants = [forsythia, serviceberry, apple, commonLilac, blackLocust, elderberry, catalpa, linden, chicory]

/** Every organism of the library, by name, checked; a bad entry stops the program at start. */
export const organisms: readonly Organism[] = [...animals, ...pathogens, ...weeds]
  .map((entry) => organismSchema.parse(spellOut(entry)))
  .sort((a, b) => a.name.localeCompare(b.name))

/** The plants whose bloom tells the season, in the order in which they bloom. */
export const indicators: readonly Indicator[] = bloomPlants.map((entry) => indicatorSchema.parse(spellOut(entry)))

/** The entry with this id, if the library has it. */
export function findOrganism(id: string): Organism | undefined {
  return organisms.find((organism) => organism.id === id)
}
