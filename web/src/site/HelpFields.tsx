import { Link } from 'react-router'
import { useBlocks } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { DateField } from '../design/DateField.js'
import { FormError } from '../design/FormError.js'
import { Several } from '../design/Several.js'
import { Fields, Line } from '../design/text.js'
import { useText } from '../messages/useText.js'
import type { HelpValues } from './helpValues.js'
import '../messages/en/helping.js'

/** On which day a volunteer works, and where. */
export function HelpFields(p: { value: HelpValues; onChange: (help: HelpValues) => void; errors: Readonly<Record<string, string>> }) {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { value, onChange, errors } = p
  return (
    <>
      <Fields>
        <DateField label={t('helping.on')} value={value.on} onChange={(on) => onChange({ ...value, on })} error={errors['help.on']} />
        <Several
          label={t('helping.in')}
          placeholder={t('choose')}
          width="26ch"
          options={blocks.map(({ id, name }) => ({ id, label: name }))}
          value={value.blockIds}
          onChange={(blockIds) => onChange({ ...value, blockIds })}
          dropWords={(name) => t('helping.drop', { name })}
          error={errors['help.blockIds']}
        />
      </Fields>
      {value.blockIds.length > 0 ? (
        <Line>
          <Link to={`/sites/${site.id}/scouting/as-volunteers?blocks=${value.blockIds.join(',')}`} target="_blank">
            {t('helping.preview')}
          </Link>
        </Line>
      ) : null}
      <FormError text={errors['help'] ?? null} />
    </>
  )
}
