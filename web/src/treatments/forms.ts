/* What is filled in: fetched together when the first is opened. */
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/work.js'

export { ProductForm } from './ProductForm.js'
export { RecordForm } from './RecordForm.js'
export { RecordUnplanned } from './RecordUnplanned.js'
