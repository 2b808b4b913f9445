import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'

import { Button } from '../kit/Button'
import { color, radius, space } from '../theme'
import { rooms } from './rooms'

const keys: [string, string][] = [
  ['/', 'find'],
  ...rooms.map(({ key, name }): [string, string] => [`g ${key}`, name]),
  ['[  ]', 'previous and next stage'],
  ['e', 'edit the record of the machine'],
  ['w', 'why: go to the reckoning'],
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
        <Panel>
          <Heading slot="title">Keys</Heading>
          <KeyList entries={keys} />
          <h3>In a sheet</h3>
          <KeyList entries={sheetKeys} />
          <Button slot="close" autoFocus>Close</Button>
        </Panel>
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

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 10;
  display: grid;
  place-items: center;
  padding: ${space(2)};
  background: rgb(20 25 28 / 45%);
`
const Panel = styled(Dialog)`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  min-width: min(400px, 88vw);
  max-height: 88vh;
  overflow: auto;
  padding: ${space(3)};
  border: 1px solid ${color.line};
  border-radius: ${radius};
  background: ${color.sheet};
  outline: none;
`
const List = styled.dl`
  div { display: flex; gap: ${space(1)}; padding: 2px 0; }
  dt { width: 96px; }
`
