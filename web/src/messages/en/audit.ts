import { register } from '../registry.js'

/** Who changed what. */
export const audit = {
  'audit.title': 'What was changed',
  'audit.text': 'Everything that is stored here, with who did it. Nothing of it can be changed.',
  'audit.nothing': 'Nothing was changed here yet.',
  'audit.create': '{by} added {kind} {name}',
  'audit.change': '{by} changed {kind} {name}',
  'audit.remove': '{by} removed {kind} {name}',
  'audit.restore': '{by} brought back {kind} {name}',
  'audit.value': '{field}: {before} → {after}',
  'audit.none': 'nothing',
  'audit.signIns': 'Who signed in',
  'audit.onPhone': 'by code, on {phone}',
  'audit.signedIn': '{at}, last seen {seen}',
  'audit.more': 'Earlier ones',
  'audit.csv': 'All of it as CSV',
  'audit.by': 'By whom',
  'audit.everybody': 'everybody',
  'audit.details': 'what of it',
  'audit.of.place': 'the ground',
  'audit.of.site': 'the site',
  'audit.of.site_person': 'who works here:',
  'audit.of.deed': 'a treatment',
  'audit.of.round': 'a count',
  'audit.of.watch': 'a watch',
  'audit.of.product': 'the product',
  'audit.of.station': 'the station',
  'audit.of.bloom_record': 'a bloom seen',
  'audit.of.event_record': 'a sighting',
  'audit.of.typed_day': 'typed days',
  'audit.of.phone': 'the shared phone',
  'audit.of.ground_shape': 'a drawing on the map',
  'audit.of.harvest': 'a harvest',
  'audit.of.link': 'a link for',
} as const

register(audit)
