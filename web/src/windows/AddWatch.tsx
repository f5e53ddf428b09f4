import { endpoints, type Block, type Organism, type Watch } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { FormError } from '../design/FormError.js'
import { Caution, Heading, Line, Page, Sheet, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { SourceKnown } from './WatchDetail.js'

interface Props {
  blocks: readonly Block[]
  organisms: readonly Organism[]
  onAdded: (watchId: string) => void
  onCancel: () => void
}

/** Watch an organism in a block, from its biofix. */
export function AddWatch({ blocks, organisms, onAdded, onCancel }: Props) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.watches.create, {
    organismId: null as string | null,
    blockId: null as string | null,
    biofix: null as string | null,
    biofixNote: '',
    sourceKnown: 'unknown' as Watch['sourceKnown'],
  })
  const { values, set, errors } = entry
  const organism = organisms.find(({ id }) => id === values.organismId)
  const save = async (): Promise<void> => {
    const watch = await entry.submit({ siteId: site.id }, (v) => ({
      ...v,
      organismId: v.organismId ?? undefined,
      blockId: v.blockId ?? '',
      season: site.season.start,
      threshold: null,
    }))
    if (watch) onAdded(watch.id)
  }
  return (
    <Page as="section" aria-labelledby="add-watch">
      <Sheet>
        <Stack>
          <Heading id="add-watch">{t('watch.add')}</Heading>
          <Line>
            <Select
              label={t('watch.organism')}
              placeholder={t('choose')}
              width="24ch"
              options={organisms.map(({ id, name }) => ({ id, label: name }))}
              value={values.organismId}
              onChange={(organismId) => set({ organismId })}
              error={errors['organismId']}
            />
            <Select
              label={t('watch.block')}
              placeholder={t('choose')}
              width="24ch"
              options={blocks.map(({ id, name }) => ({ id, label: name }))}
              value={values.blockId}
              onChange={(blockId) => set({ blockId })}
              error={errors['blockId']}
            />
            <DateField label={t('watch.biofix')} value={values.biofix} onChange={(biofix) => set({ biofix })} error={errors['biofix']} />
            <TextField
              label={t('watch.biofixNote')}
              width="36ch"
              value={values.biofixNote}
              onChange={(biofixNote) => set({ biofixNote })}
              error={errors['biofixNote']}
            />
          </Line>
          {organism ? (
            <>
              <p>
                {organism.biofix.ask} {t('watch.biofixLater', { kind: organism.biofix.kind })}
              </p>
              {organism.infection ? (
                <>
                  <p>{organism.infection.inoculum}</p>
                  <SourceKnown value={values.sourceKnown} onChange={(sourceKnown) => set({ sourceKnown })} />
                </>
              ) : null}
              <Small>{t('watch.lookAlikes')}</Small>
              {organism.lookAlikes.map((text) => (
                <Caution key={text}>{text}</Caution>
              ))}
              <Small>{t('caution.identity')}</Small>
            </>
          ) : null}
          <FormError text={entry.general} />
          <Line>
            <Button onPress={() => void save()} isDisabled={entry.isSaving}>
              {t('watch.start')}
            </Button>
            <Button $plain onPress={onCancel}>
              {t('cancel')}
            </Button>
          </Line>
        </Stack>
      </Sheet>
    </Page>
  )
}
