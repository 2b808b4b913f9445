import styled from 'styled-components'

import type { Schemas } from '../../../../api/client'
import { Notice } from '../../../../kit/Notice'
import { space } from '../../../../theme'

const words: Record<Schemas['WiringWarning']['kind'], string> = {
  'same pins': 'Two on the same pins.',
  never: 'Must stay free.',
  twins: 'Easily mistaken.',
  width: 'Pins stay free.',
  'which way': 'Which way round?',
  'not counted': 'Pins not counted.',
}

/** What may be mistaken among the plugs, the gravest first. */
export function WarningList({ title, warnings }: { title: string; warnings: Schemas['WiringWarning'][] }) {
  if (warnings.length === 0) return null
  return (
    <List>
      {title && <p><strong>{title}</strong></p>}
      {warnings.map(({ kind, text }) =>
        <Notice key={text} tone={kind === 'never' ? 'stop' : 'attention'} word={words[kind]}>{text}</Notice>)}
    </List>
  )
}

const List = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding-bottom: ${space(1)};
`
