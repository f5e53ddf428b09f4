import { register } from '../registry.js'

/** What goes into the tank. */
export const mix = {
  'mix.area': 'Area',
  'mix.plants': 'Plants',
  'mix.rowM': 'Length of row',
  'mix.heightM': 'Height of plants',
  'mix.widthM': 'Width of row',
  'mix.rowSpacingM': 'Between rows',
  'mix.rate': 'Rate',
  'mix.spray': 'Spray',
  'mix.tank': 'Tank',
  'mix.machine': 'Put out with',
  'mix.noMachine': 'something else',
  'mix.less': 'Why less than the label names',
  'mix.lessHint': 'it goes into the record',
  'mix.all': 'In all {product}{spray, select, none {} other { in {spray}}}.',
  'mix.apart': 'One every {metres}, in rows as far apart.',
  'mix.full':
    '{count, plural, one {One full tank with {each}} other {{count, number} full tanks, each with {each}}}{last, select, none {.} other {; the last one {last} with {inLast}.}}',
  'mix.onlyLast': 'One tank of {last} with {inLast}.',
  'mix.above': 'The label allows at most {most}.',
  'mix.water': 'The label asks for at least {least} of water.',
  'mix.onPaper':
    '{area, select, none {} other {{area}, }}{rate}, at most {most} by the label{machine, select, none {} other {; put out with {machine}}}.',
  'mix.over': 'What is left over is watered down and put out on the same ground, never down a drain.',
  'mix.fill': 'Fill in what is missing.',
  'mix.label': 'Of mixing the label says: {says}',
  'mix.other': 'Spray by the canopy, or in all',
  'mix.sprayAll': 'Spray in all',
  'mix.concentrate': 'Less water, by',
  'mix.concentrateHint': 'times; 1 is as the label',
  'mix.canopyHow': 'Rows need spray by the space that they fill.',
  'mix.per100': 'For that space',
  'mix.canopyTakes': 'That is {spray}.',
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
