package inventory

import (
	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/datecode"
	"frugalheron/store/pg"
)

// CheckMachine trims what is said of a machine, or says what is wrong with it.
func CheckMachine(m *MachineInput) error {
	err := input.CheckAll(
		input.OneLine("accession", &m.Accession), input.OneLine("name", &m.Name), input.OneLine("maker", &m.Maker),
		input.OneLine("model", &m.Model), input.OneLine("serial", &m.Serial), input.OneLine("place", &m.Place),
		input.Lines("provenance", &m.Provenance),
	)
	switch {
	case err != nil:
		return err
	case m.Accession == "":
		return action.Reject("accession", "give the accession number, as EH-0142")
	case m.Name == "":
		return action.Reject("name", "give the machine a name")
	case m.EraFrom == nil && m.EraTo != nil:
		return action.Reject("eraFrom", "give the first year as well as the last")
	case m.EraFrom != nil && m.EraTo == nil:
		return action.Reject("eraTo", "give the last year as well as the first")
	case m.EraFrom != nil && *m.EraTo < *m.EraFrom:
		return action.Reject("eraTo", "lies before the first year")
	}
	return nil
}

// EraOf are the years in which parts of a machine are expected; none where nobody said.
func EraOf(from, to *int) datecode.Era {
	if from == nil || to == nil {
		return datecode.Era{}
	}
	return datecode.Era{From: *from, To: *to}
}

func accessionTaken(err error, accession string) error {
	if pg.Violates(err, "machine_accession_key") {
		return action.Reject("accession", accession+" is in use by another machine")
	}
	return err
}
