import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { type Configuration, type ConfigurationFields, type ConfiguredCard, type Setup,
  settingsQuery } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { useSettled } from '../../../../kit/useSettled'
import { Meanings } from './Meanings'

type Kind = NonNullable<ConfigurationFields['kind']>
type Props = { keptAs: string; base?: unknown; today: Setup['cards']; start?: Configuration; newest?: Configuration
  error: Error | null; isPending: boolean; onSubmit: (fields: ConfigurationFields) => void; onCancel: () => void }

/** How the machine is set up on a day. A new one begins with the cards that are fitted, set as they were last. */
export function ConfigurationForm({ today, start, newest, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState<Kind>(start?.kind ?? (newest ? 'working' : 'as found'))
  const [cards] = useState<ConfiguredCard[]>(() => start?.cards ?? today.map(({ assemblyId, title, slot }) => ({ assemblyId,
    title, slot, settings: newest?.cards?.find((one) => one.assemblyId === assemblyId)?.settings ?? '' })))
  const [settings, setSettings] = useState(() => cards.map((one) => one.settings ?? ''))
  const before = start ?? newest
  const [files, setFiles] = useState((start?.files ?? newest?.files ?? []).length)
  return (
    <RecordForm {...form} action="Save" onSubmit={(data) => {
      onSubmit({ title: textOf(data, 'title'), kind, on: textOf(data, 'on'), firmware: textOf(data, 'firmware'),
        media: textOf(data, 'media'), note: textOf(data, 'note'),
        cards: cards.map((one, i) => ({ ...one, settings: settings[i] })),
        files: Array.from({ length: files }, (_, i) => ({ name: textOf(data, `files[${String(i)}].name`),
          text: String(data.get(`files[${String(i)}].text`) ?? '').replaceAll('\r\n', '\n') }))
          .filter(({ name, text }) => name || text) })
    }}>
      <FieldGrid>
        <Field label="What it is called" name="title" isRequired defaultValue={start?.title} placeholder="As found" />
        <Choice label="What it is" name="kind" value={kind} onChange={setKind} options={[
          { value: 'as found', text: 'as found' }, { value: 'working', text: 'as it worked' },
          { value: 'restored', text: 'restored' }, { value: 'changed', text: 'changed' }, { value: 'other', text: 'other' }]} />
        <Field label="Day" name="on" mono defaultValue={start?.on} placeholder="today" />
      </FieldGrid>
      {cards.map((card, i) => <CardSettings key={i} card={card} at={i} text={settings[i] ?? ''}
        known={today.find(({ assemblyId }) => assemblyId === card.assemblyId)}
        onText={(text) => { setSettings((all) => all.map((one, n) => n === i ? text : one)) }} />)}
      <Field label="Kept by the firmware" name="firmware" rows={3} mono defaultValue={before?.firmware}
        placeholder={'drive C = type 17\nboot order = A, C'}
        hint="A line each, as its setup shows it. A password belongs under Credentials, where not everybody sees it." />
      <Field label="In the drives" name="media" rows={2} mono defaultValue={before?.media} placeholder="drive A = starter disk" />
      {Array.from({ length: files }, (_, i) => (
        <div key={i}>
          <Field label={`File ${String(i + 1)}`} name={`files[${String(i)}].name`} defaultValue={before?.files?.[i]?.name} placeholder="START.CMD" />
          <Field label={`What it holds (file ${String(i + 1)})`} name={`files[${String(i)}].text`} rows={4} mono
            defaultValue={before?.files?.[i]?.text} />
        </div>
      ))}
      <Buttons><Button $small onPress={() => { setFiles(files + 1) }}>A start-up, host or driver file</Button></Buttons>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}

type CardProps = { card: ConfiguredCard; at: number; text: string; known?: Setup['cards'][number]
  onText: (text: string) => void }

/** The settings of a card, with what they mean as they are written. */
function CardSettings({ card, at, text, known, onText }: CardProps) {
  const settled = useSettled(text.trim(), 300)
  const read = useQuery({ ...settingsQuery(card.assemblyId ?? 0, settled), enabled: Boolean(card.assemblyId &&
    settled) })
  const names = known?.settings.map(({ name }) => name) ?? []
  return (
    <div>
      <Field label={`Settings of ${card.title}${card.slot ? `, slot ${card.slot}` : ''}`} name={`cards[${String(at)}].settings`}
        rows={2} mono value={text} onChange={onText} placeholder={names.length > 0 ? names.join(', ') : 'JP3 1-2'}
        hint={names.length > 0 ? `${known?.known ?? ''} has ${names.join(', ')}` : 'A jumper or switch a line: JP3 1-2, SW1 on on off; ? for a switch that nobody saw'} />
      {text.trim() !== '' && read.data && <>
        {read.data.problems.map(({ line, message }) => <p key={line}><Mark kind="problem" /> Line {line} {message}.</p>)}
        <Meanings meanings={read.data.meanings} />
      </>}
      {card.assemblyId === undefined && <Faint>Not one of ours</Faint>}
    </div>
  )
}
