import { register } from '../registry.js'

/** How a site counts an organism, where it goes by its own rule. */
export const rule = {
  'rule.weight': '{name} {weight}',
  'rule.own': 'Counted by the site’s own rule: {weights}. {reason}',
  'rule.edit': 'Count otherwise',
  'rule.editNamed': 'Count {name} otherwise',
  'rule.asLibrary': 'As the library says',
  'rule.removed': '{name} is counted as the library says.',
  'rule.explain':
    'How much each weighs in a count; 0 does not count. Past rounds are reckoned by it as well, so that years stay comparable.',
  'rule.ownUnit': 'From now on, units of one’s own, such as 10 single plants',
  'rule.suggested': 'In a round',
  'rule.many': 'Several are called',
  'rule.one': 'One is called',
  'rule.items': '{items} on each',
  'rule.frame': 'What is counted, and how',
  'rule.reason': 'Why this site counts otherwise',

  'rule.scale': 'What is counted',
  'rule.scale.classes': 'the classes of the entry',
  'rule.scale.degrees': 'degrees of its damage, by the drawings',
  'rule.scale.presence': 'only whether a sample unit has any',
  'rule.presence':
    'One tap for each {unit} that has any. How many that means is reckoned by how they sit together, here where it was measured, else as it is assumed; counts in numbers from time to time keep it honest.',
  'rule.degrees':
    'For each of the {items} that shows damage, tap the degree that comes nearest; those without are not tapped. What comes of it is per cent of the surface, and needs a threshold of its own.',
  'rule.plan': 'How a count ends',
  'rule.planNow':
    'Counts end here {kind, select, fixed {after a fixed number} crowding {by how they crowd} precision {once the mean is known} other {between two lines of this site}}.',
  'ownPlan.kind': 'A count ends',
  'ownPlan.kind.usual': 'as usual: between two lines, ten units in five places at least',
  'ownPlan.kind.sequential': 'between two lines, with risks of one’s own (Wald 1947)',
  'ownPlan.kind.fixed': 'after a fixed number, by its mean',
  'ownPlan.kind.crowding': 'between curves, by how they sit together here (Iwao 1975)',
  'ownPlan.kind.precision': 'once the mean is known well enough (Green 1970)',
  'ownPlan.safeShare': 'Safe: of the threshold',
  'ownPlan.needless': 'Risk of acting needlessly',
  'ownPlan.missed': 'Risk of missing it',
  'ownPlan.relativeSe': 'Known to, of the mean',
  'ownPlan.leastUnits': 'At least so many {units}',
  'ownPlan.leastPlaces': 'in so many places',
  'ownPlan.mostUnits': 'At most so many {units}',
  'ownPlan.measured':
    'By counts of this site ({counts, number}): {k, select, none {they sit no closer together than by chance} other {common k {k} (Bliss & Owen 1958)}}{taylor, select, yes {, variance {a}·m^{b} (Taylor 1961)} other {}}.',
  'ownPlan.unmeasured':
    'How they sit together is not known here yet: five counts of five sample units each that found something would tell; there {counts, plural, one {is one count} other {are {counts, number} counts}} by today’s unit.',
  'ownPlan.noThreshold': 'Without a threshold nothing ends by it, and nothing can be simulated.',
} as const

register(rule)
