package diagnosis

import (
	"context"
	"slices"
	"time"

	"frugalheron/app/action"
	"frugalheron/core/trials"
	"frugalheron/store/diagnosis"
	storeinventory "frugalheron/store/inventory"
)

// mostWithBoards bounds how many diagnoses are looked through for some boards.
const mostWithBoards = 500

// elsewhere tells how boards did in trials, over all machines.
func (s *Service) elsewhere(ctx context.Context, ids []int64) ([]Elsewhere, error) {
	told := []Elsewhere{}
	if len(ids) == 0 {
		return told, nil
	}
	h := s.kernel.Reader(ctx)
	rows, err := diagnosis.WithBoards(ctx, h, ids, mostWithBoards)
	if err != nil {
		return nil, err
	}
	all := action.Views(rows, tellResults)
	for _, id := range ids {
		board, err := storeinventory.AssemblyByID(ctx, h, id)
		if err != nil {
			return nil, err
		}
		told = append(told, over(all, id, board.Title))
	}
	return told, nil
}

// tellResults tells how trials went, and not what they leave: that takes longer than many rows bear.
func tellResults(row diagnosis.Diagnosis) Diagnosis {
	kept, _ := action.ReadKept[DiagnosisInput](row.Body) // written by this package alone
	told := Diagnosis{ID: row.ID, MachineID: row.MachineID, Accession: row.Accession, DiagnosisInput: kept}
	for _, t := range kept.Trials {
		told.Judged.Results = append(told.Judged.Results, trials.Counted(t.Runs, t.Failed))
	}
	return told
}

func over(all []Diagnosis, id int64, title string) Elsewhere {
	e := Elsewhere{AssemblyID: id, Title: title, Machines: []InMachine{}}
	for _, d := range all {
		name := ""
		for _, f := range d.Factors {
			if f.AssemblyID != nil && *f.AssemblyID == id {
				name = f.Name
			}
		}
		for i, t := range d.Trials {
			if name == "" || !slices.Contains(t.On, name) {
				continue
			}
			at := slices.IndexFunc(e.Machines, func(m InMachine) bool { return m.MachineID == d.MachineID })
			if at < 0 {
				at = len(e.Machines)
				e.Machines = append(e.Machines, InMachine{MachineID: d.MachineID, Accession: d.Accession})
			}
			m := &e.Machines[at]
			switch d.Judged.Results[i] {
			case trials.OK:
				m.OK++
			case trials.Fail:
				m.Failed++
			default:
				m.Sometimes++
			}
			m.Last = max(m.Last, t.Day)
		}
	}
	e.Pairing = trials.PairingOf(action.Views(e.Machines, func(m InMachine) trials.Tried {
		return trials.Tried{Machine: m.MachineID, OK: m.OK, Fails: m.Failed, Sometimes: m.Sometimes}
	}))
	return e
}

// changing are deeds of the history that change a machine, with the kind of factor that each is.
var changing = map[string]string{"finish job": "part", "move assembly": "part", "receive assembly": "part",
	"save sheet": "part", "take back move": "part", "turn adjuster": "setting", "plug in connector": "part",
	"unplug connector": "part", "move machine": "environment", "make rom": "part"}

// Bounds of what is offered.
const (
	mostLookedThrough = 200
	mostOffered       = 12
)

// offered lists what was changed lately, the newest first.
func (s *Service) offered(ctx context.Context, actor action.Actor, machineID int64) ([]Offered, error) {
	page, err := s.history.History(ctx, actor, machineID, 0, mostLookedThrough)
	found := []Offered{}
	for _, e := range page.Events {
		kind := changing[e.Action]
		if kind == "" || len(found) == mostOffered {
			continue
		}
		found = append(found, Offered{Words: e.What, On: e.At.UTC().Format(time.DateOnly), Kind: kind})
	}
	return found, err
}
