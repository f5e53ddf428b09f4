import { register } from '../registry.js'

/** What goes into the tank. */
export const mix = {
  'mix.title': 'What to mix',
  'mix.area': 'Area',
  'mix.rate': 'Rate',
  'mix.spray': 'Spray',
  'mix.tank': 'Tank',
  'mix.all': 'In all {product} in {spray}.',
  'mix.full':
    '{count, plural, one {One full tank with {each}} other {{count, number} full tanks, each with {each}}}{last, select, none {.} other {; the last one {last} with {inLast}.}}',
  'mix.onlyLast': 'One tank of {last} with {inLast}.',
  'mix.above': 'The label allows at most {most}.',
  'mix.water': 'The label asks for at least {least} of water.',
  'mix.order':
    'Half of the water first, then the product while it is stirred, then the rest; nothing else into it that its label does not name.',
  'mix.over': 'What is left over is watered down and put out on the same ground, never down a drain.',
  'mix.fill': 'Fill in what is missing.',
  'mix.check': 'Check what comes out',
  'mix.flow': 'One nozzle gives',
  'mix.speed': 'Speed',
  'mix.spacing': 'Between nozzles',
  'mix.output': 'It puts out {output}, {off} {way, select, more {more} other {less}} than is wanted.',
  'mix.outputFits': 'It puts out {output}, as is wanted.',
  'mix.outputHow':
    'Catch what one nozzle gives in a minute; do all of them: one that gives a tenth more or less than the others is changed.',
} as const
register(mix)
