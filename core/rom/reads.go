package rom

import "fmt"

// Read is one reading of a chip in its socket, the oldest first in lists.
type Read struct {
	SHA256    string
	On        string // day, in words
	Exception string // why one reading is enough; empty when it is not
}

// ReadState says how far a chip's content is known.
type ReadState string

// States of a socket.
const (
	NotRead   ReadState = "not read"
	ReadOnce  ReadState = "read once"
	Accepted  ReadState = "read"
	Differing ReadState = "readings differ"
	Fading    ReadState = "fading"
)

// Chip is what the readings of a chip amount to.
type Chip struct {
	State ReadState `json:"state" enum:"not read,read once,read,readings differ,fading"`
	// SHA256 names the content that counts: the first that was read twice in a row; empty when none was.
	SHA256 string `json:"sha256"`
	Why    string `json:"why"`
	Next   string `json:"next"` // what to do; empty when nothing is missing
}

// JudgeReads says what the readings of one socket amount to. Content counts once two readings in a row were
// the same, or one with a reason why no second can be had. Later readings are compared with it: a device
// that loses its charge is found that way. compare gives how two contents differ, the earlier first.
func JudgeReads(reads []Read, compare func(a, b string) (Comparison, error)) (Chip, error) {
	if len(reads) == 0 {
		return Chip{State: NotRead, Next: "read it out"}, nil
	}
	var chip Chip
	counts := -1 // the reading whose content counts
	for i, r := range reads {
		same := i > 0 && reads[i-1].SHA256 == r.SHA256
		if !same && r.Exception == "" || chip.SHA256 == r.SHA256 {
			continue
		}
		if counts >= 0 {
			// Twice the same, but not what it was: a chip that fades stays what it was read as first.
			c, err := compare(chip.SHA256, r.SHA256)
			if err != nil {
				return chip, err
			}
			if c.Verdict == ChargeLoss {
				continue
			}
		}
		counts, chip.SHA256 = i, r.SHA256
		chip.Why = fmt.Sprintf("two readings in a row were the same, the last on %s", r.On)
		if !same {
			chip.Why = fmt.Sprintf("one reading counts, %s: %s", r.On, r.Exception)
		}
	}
	newest := reads[len(reads)-1]
	if counts < 0 {
		return beforeAccepted(reads, compare)
	}
	chip.State = Accepted
	if newest.SHA256 == chip.SHA256 {
		return chip, nil
	}
	c, err := compare(chip.SHA256, newest.SHA256)
	if err != nil {
		return chip, err
	}
	if c.Verdict == ChargeLoss {
		chip.State = Fading
		chip.Why = fmt.Sprintf("read on %s it had changed since the readings that count. %s", newest.On, c.Note)
		chip.Next = "read it again now, and burn a copy of the content that counts"
		return chip, nil
	}
	chip.State = Differing
	chip.Why = fmt.Sprintf("read on %s it was not what it was before (%s). %s", newest.On, c.Verdict, c.Note)
	chip.Next = "clean the contacts and read it twice; if both are alike, another chip sits in the socket"
	return chip, nil
}

func beforeAccepted(reads []Read, compare func(a, b string) (Comparison, error)) (Chip, error) {
	newest := reads[len(reads)-1]
	if len(reads) == 1 {
		return Chip{State: ReadOnce, Why: fmt.Sprintf("there is one reading only, of %s", newest.On),
			Next: "read it a second time: only two that are alike count"}, nil
	}
	before := reads[len(reads)-2]
	c, err := compare(before.SHA256, newest.SHA256)
	if err != nil {
		return Chip{}, err
	}
	return Chip{State: Differing, Why: fmt.Sprintf("the last two readings differ (%s). %s", c.Verdict, c.Note),
		Next: "clean the contacts and read it until two in a row are alike"}, nil
}
