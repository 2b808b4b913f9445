import { useState } from 'react'

import type { Block, AnnotationView } from '../../api/annotations'
import { Button, Buttons } from '../../kit/Button'
import { Field, Tick } from '../../kit/Field'
import { Part } from '../../kit/Part'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = {
  told: AnnotationView
  mayWrite: boolean
  members: string[] | undefined
  onMembers: (members: string[] | undefined) => void
  isPending: boolean
  onBlocks: (blocks: Block[], done?: () => void) => void
}

/** Outlines round what works together: what each does, and which memory a processor may reach. */
export function Blocks({ told, mayWrite, members, onMembers, isPending, onBlocks }: Props) {
  const { blocks } = told.annotation
  const [reaches, setReaches] = useState<string[]>([])
  const toggle = (name: string, isOn: boolean) => { setReaches(isOn ? [...reaches, name] : reaches.filter((one) =>
    one !== name)) }
  return (
    <Part title="What works together"
      action={mayWrite && !members && <Button $small onPress={() => { setReaches([]); onMembers([]) }}>
        Draw an outline
      </Button>}>
      {members && (
        <RecordForm
          keptAs={null}
          error={null}
          isPending={isPending}
          action={`Outline ${String(members.length)} numbers`}
          onSubmit={(form) => { onBlocks([...blocks, { name: textOf(form, 'name'), members, reaches }],
            () => { onMembers(undefined) }) }}
          onCancel={() => { onMembers(undefined) }}
        >
          <Field label="What it does" name="name" isRequired autoFocus placeholder="memory" />
          <p>{members.length > 0 ? members.join(', ') : 'Choose numbers on the picture.'}</p>
          {blocks.length > 0 && (
            <fieldset>
              <legend>A processor in it may reach</legend>
              {blocks.map(({ name }) => <Tick key={name} label={name} isOn={reaches.includes(name)}
                onChange={(isOn) => { toggle(name, isOn) }} />)}
            </fieldset>
          )}
        </RecordForm>
      )}
      {blocks.length === 0 && !members && <p>No outline is drawn yet.</p>}
      <ul>
        {blocks.map((block) => (
          <li key={block.name}>
            <strong>{block.name}</strong>: {block.members.join(', ')}
              {block.reaches.length > 0 && `; may reach ${block.reaches.join(', ')}`}{' '}
            {mayWrite && (
              <Buttons className="no-print">
                <Button $tone="quiet" aria-label={`Take off the outline ${block.name}`}
                  onPress={() => {
                    onBlocks(blocks.filter((one) => one !== block).map((one) => ({ ...one,
                      reaches: one.reaches.filter((name) => name !== block.name) })))
                  }}>Take off</Button>
              </Buttons>
            )}
          </li>
        ))}
      </ul>
    </Part>
  )
}
