package known

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/slotplan"
)

// Placing is what an assembly asks of the backplane that it sits in:
//
//	wide 2 | down
//	blocks +1
//	chain passes
//	stands first
//	stands behind | 4410-2
//	stands beside | 4410-2
//	uses irq | 3, 4, 5
//	uses io | 300-31F, 320-33F
//	uses irq | 5 | shared
//
// Where a jumper chooses, its positions say it instead: jumper JP2 | 1-2 = irq 3 | 2-3 = irq 4.
type Placing struct {
	Wide   int      `json:"wide" doc:"Slots that it takes up; 0 where nobody said, which counts as one"`
	Grows  string   `json:"grows" enum:",up,down" doc:"To which side the others are; empty is up"`
	Blocks []string `json:"blocks" doc:"Slots that stay empty while it is in: by name, or +1 for the next one behind its own"`
	Chain  string   `json:"chain" enum:",passes,breaks,none" doc:"How it takes part in the chain of the bus; empty where nobody said"`
	First  bool     `json:"first" doc:"No card stands before it"`
	Behind []string `json:"behind" doc:"Numbers or names of those that stand before it"`
	Beside string   `json:"beside" doc:"Number or name of the one that it stands next to; empty for none"`
	Uses   []Use    `json:"uses"`
}

// Use is a resource that an assembly takes.
type Use struct {
	Resource string   `json:"resource" enum:"irq,dma,io,memory"`
	Choices  []string `json:"choices" doc:"One of these: a number, or a window of addresses in hexadecimal, both ends included"`
	Shared   bool     `json:"shared" doc:"Others that share it may have it, too"`
}

// NextSlot is how a slot is written that lies behind its own: +1.
var NextSlot = regexp.MustCompile(`^\+[1-9]\d?$`)

// Resources are those that an assembly can take.
func Resources() []string { return []string{"irq", "dma", "io", "memory"} }

func (d *Details) wide(cells []string) error {
	n, err := strconv.Atoi(cells[0])
	side := strings.ToLower(cell(cells, 1))
	if err != nil || n < 1 || n > 16 || !slices.Contains([]string{"", "up", "down"}, side) {
		return errors.New("says no width; write wide 2, or wide 2 | down")
	}
	d.Placing.Wide, d.Placing.Grows = n, side
	return nil
}

func (d *Details) block(cells []string) error {
	if strings.HasPrefix(cells[0], "+") && !NextSlot.MatchString(cells[0]) {
		return fmt.Errorf("%q is no slot; write blocks +1 for the next one, or its name", cells[0])
	}
	d.Placing.Blocks = append(d.Placing.Blocks, cells[0])
	return nil
}

func (d *Details) chain(cells []string) error {
	how := strings.ToLower(cells[0])
	if !slices.Contains([]string{slotplan.Passes, slotplan.Breaks, slotplan.None}, how) {
		return errors.New("says no such part in the chain; write chain passes, chain breaks or chain none")
	}
	d.Placing.Chain = how
	return nil
}

func (d *Details) stand(cells []string) error {
	what := cell(cells, 1)
	switch how := strings.ToLower(cells[0]); {
	case how == "first" && what == "":
		d.Placing.First = true
	case how == "behind" && what != "":
		d.Placing.Behind = append(d.Placing.Behind, what)
	case how == "beside" && what != "" && d.Placing.Beside == "":
		d.Placing.Beside = what
	default:
		return errors.New("says no such place; write stands first, stands behind | 4410-2 or, once, stands beside | 4410-2")
	}
	return nil
}

func (d *Details) use(cells []string) error {
	u := Use{Resource: strings.ToLower(cells[0]), Choices: []string{}}
	if !slices.Contains(Resources(), u.Resource) || cell(cells, 1) == "" {
		return errors.New("says no resource; write uses irq | 3, 4 or uses io | 300-31F")
	}
	for choice := range strings.SplitSeq(cells[1], ",") {
		choice = strings.TrimSpace(choice)
		if _, err := slotplan.ChoiceOf(u.Resource, choice); err != nil {
			return err
		}
		u.Choices = append(u.Choices, choice)
	}
	switch strings.ToLower(cell(cells, 2)) {
	case "":
	case "shared":
		u.Shared = true
	default:
		return fmt.Errorf("%q says nothing of it; write shared, or nothing", cells[2])
	}
	d.Placing.Uses = append(d.Placing.Uses, u)
	return nil
}
