import { register } from '../registry.js'

/** Monthly normals. */
export const normals = {
  'normals.title': 'Monthly normals',
  'normals.none':
    'None typed. With fewer than five past seasons of readings, seasons are made from the twelve monthly means of a climate table, and every forecast says so.',
  'normals.typed': '{july}: {min} to {max}. From {source}. Used where fewer than five past seasons are known.',
  'normals.enter': 'Enter monthly normals',
  'normals.change': 'Change them',
  'normals.remove': 'Remove them',
  'normals.removed': 'Monthly normals removed.',
  'normals.label': 'A month a line, January first',
  'normals.hint': 'Mean minimum, mean maximum ({temperature}) and rain of the month ({rain}), such as: -3 4 38',
  'normals.take': 'Take those of {station}',
  'normals.fromStation': 'own readings at {station}',
  'normals.wrongLine': 'Line {number}: write three numbers, minimum, maximum and rain',
  'normals.wrongMonth': '{month}: {problem}',
  'normals.understood': '{count, number} of 12 months; {first} {min} to {max}, {rain}.',
  'normals.source': 'Where they are from',
} as const

register(normals)
