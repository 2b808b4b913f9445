import { Heading, Modal } from 'react-aria-components'
import styled from 'styled-components'

import { Button } from '../kit/Button'
import { Overlay, OverlayPanel } from '../kit/Overlay'
import { space } from '../theme'
import { rooms } from './rooms'

const keys: [string, string][] = [
  ['/', 'say or find: words to look for, a line of a sheet, a measurement, or note and what is to be noted'],
  ...rooms.map(({ key, name }): [string, string] => [`g ${key}`, name]),
  ['o', 'what to open first'],
  ['[  ]', 'previous and next stage'],
  ['e', 'edit the record of the machine'],
  ['w', 'why: go to the reckoning'],
  ['u', 'undo what was just done, while it is offered'],
  ['F9', 'take the next reading of a series; foot switches send it'],
  ['?', 'these keys'],
]

const sheetKeys: [string, string][] = [
  ['Enter', 'new line with the next designator'],
  ['Alt+Enter', 'repeat the line above with the next designator; in an empty sheet, an example'],
  ['Alt+N', 'name the unknown chip of the line'],
  ['Ctrl+S', 'save the sheet'],
  ['↓, Enter', 'take a proposal'],
  ['Tab', 'leave the sheet'],
]

/** The keys of the product. */
export function Shortcuts({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Overlay isOpen={isOpen} onOpenChange={(open) => { if (!open) onClose() }} isDismissable>
      <Modal>
        <OverlayPanel>
          <Heading slot="title">Keys</Heading>
          <KeyList entries={keys} />
          <h3>In a sheet</h3>
          <KeyList entries={sheetKeys} />
          <Button slot="close" autoFocus>Close</Button>
        </OverlayPanel>
      </Modal>
    </Overlay>
  )
}

function KeyList({ entries }: { entries: [string, string][] }) {
  return (
    <List>
      {entries.map(([key, what]) => (
        <div key={key}>
          <dt><kbd>{key}</kbd></dt>
          <dd>{what}</dd>
        </div>
      ))}
    </List>
  )
}

const List = styled.dl`
  div { display: flex; gap: ${space(1)}; padding: 2px 0; }
  dt { width: 96px; }
`
