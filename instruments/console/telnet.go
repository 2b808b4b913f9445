package console

// Commands and options of telnet (RFC 854, 857, 858).
const (
	se   = 240
	sb   = 250
	will = 251
	wont = 252
	do   = 253
	dont = 254
	iac  = 255

	echo         = 1
	suppressGoes = 3
)

// telnet takes the negotiation out of what comes: we offer nothing, and let the other side echo and go ahead.
type telnet struct {
	command []byte // of which the rest is still to come
	isSub   bool   // within a subnegotiation
	agreed  [256]bool
	afterCR bool
}

// take gives the text of what came, and what is to be answered.
func (t *telnet) take(bytes []byte) (text, answer []byte) {
	text = make([]byte, 0, len(bytes))
	for _, b := range bytes {
		switch {
		case len(t.command) == 0 && b == iac:
			t.command = append(t.command, b)
		case len(t.command) == 0 && t.isSub:
		case len(t.command) == 0:
			if !t.afterCR || b != 0 { // a carriage return alone is sent with a NUL behind it
				text = append(text, b)
			}
			t.afterCR = b == '\r'
		case len(t.command) == 1:
			switch {
			case b == iac && !t.isSub:
				text = append(text, b)
			case b == se:
				t.isSub = false
			case b == sb:
				t.isSub = true
			case b >= will && b <= dont && !t.isSub:
				t.command = append(t.command, b)
				continue
			}
			t.command = t.command[:0]
		default:
			answer = append(answer, t.answer(t.command[1], b)...)
			t.command = t.command[:0]
		}
	}
	return text, answer
}

// answer agrees once to what we know, and refuses the rest.
func (t *telnet) answer(command, option byte) []byte {
	switch command {
	case will:
		if option != echo && option != suppressGoes {
			return []byte{iac, dont, option}
		}
		if t.agreed[option] {
			return nil
		}
		t.agreed[option] = true
		return []byte{iac, do, option}
	case do:
		return []byte{iac, wont, option}
	}
	return nil
}
