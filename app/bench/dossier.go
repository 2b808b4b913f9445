package bench

import (
	"context"
	"errors"
	"fmt"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	appevidence "frugalheron/app/evidence"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/app/sheets"
	"frugalheron/core/arrival"
	"frugalheron/core/exterior"
	"frugalheron/core/facts"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/core/verdict"
	"frugalheron/core/wiring"
	storearrivals "frugalheron/store/arrivals"
	"frugalheron/store/pg"
)

// Arrival is how a machine came to the collection, as far as it is written down.
type Arrival struct {
	Lot   *arrivals.Lot      `json:"lot" doc:"The lot it came with, or null"`
	Thing *arrivals.LotThing `json:"thing" doc:"What it is in that lot, or null"`
}

// Dossier is what is written down about a machine beside its boards.
type Dossier struct {
	Arrival           Arrival                        `json:"arrival"`
	Chain             arrivals.Chain                 `json:"chain"`
	PersonalData      []people.PersonalData          `json:"personalData"`
	Locations         []inventory.Location           `json:"locations" doc:"Where it is and was, the newest first"`
	Known             []appevidence.Known            `json:"known" doc:"What is said of each attribute, and what it amounts to"`
	Lost              []facts.Lost                   `json:"lost" doc:"Identifiers that it shows as lost, with what to restore"`
	Twins             []wiring.Twins                 `json:"twins" doc:"Ports that take the same plug but differ, the gravest first"`
	SharedIdentifiers []appevidence.SharedIdentifier `json:"sharedIdentifiers" doc:"Identifiers that it shares with other records"`
	ExteriorID        int64                          `json:"exteriorId" doc:"The assembly that is its outside"`
	Stages            DossierStages                  `json:"stages"`
}

// DossierStages say how far the stages have come that the dossier is about.
type DossierStages struct {
	Arrive          reckoning.Stage `json:"arrive"`
	ArriveMissing   []string        `json:"arriveMissing"`
	LookOver        reckoning.Stage `json:"lookOver"`
	LookOverLeft    []string        `json:"lookOverLeft"`
	Walk            []exterior.Step `json:"walk"`
	EvidenceSettled int             `json:"evidenceSettled"`
}

// Dossier reads it.
func (s *Service) Dossier(ctx context.Context, actor action.Actor, machineID int64) (Dossier, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Dossier, error) {
		return s.dossier(ctx, actor, machineID)
	})
}

func (s *Service) dossier(ctx context.Context, actor action.Actor, machineID int64) (Dossier, error) {
	machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return Dossier{}, err
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return Dossier{}, err
	}
	totals, err := s.totalsOf(ctx, actor, machine, fitted)
	if err != nil {
		return Dossier{}, err
	}
	seen, exteriorID, err := appevidence.ExteriorOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return Dossier{}, err
	}
	d, err := s.readDossier(ctx, s.kernel.Reader(ctx), actor, machine, totals, exteriorID, seen)
	if err == nil {
		err = s.findLost(ctx, actor, machine, &d)
	}
	if err == nil && actor.Hides() {
		d.PersonalData = []people.PersonalData{} // for staff, as everywhere
		d.SharedIdentifiers, err = appevidence.SharedIdentifiersOf(ctx, s.kernel.Reader(ctx), machineRef(machineID),
			true)
	}
	return d, err
}

func (s *Service) readDossier(ctx context.Context, h pg.Handle, actor action.Actor, machine inventory.Machine,
	totals reckoning.Totals, exteriorID int64, seen exterior.Sheet) (Dossier, error) {
	d, err := action.Once(ctx, fmt.Sprint("provenance ", actor.Role), machine.ID, func() (Dossier, error) {
		return readProvenance(ctx, h, actor, machine.ID)
	})
	if err != nil {
		return d, err
	}
	d.ExteriorID = exteriorID
	if d.Known, err = appevidence.KnownOf(ctx, h, actor, machine, totals, exteriorID, seen); err != nil {
		return d, err
	}
	d.Stages = d.judgeStages(seen)
	d.Twins, err = s.findTwins(ctx, h, machine.ID, seen)
	return d, err
}

// readProvenance reads what no sheet has a say in.
func readProvenance(ctx context.Context, h pg.Handle, actor action.Actor, machineID int64) (d Dossier, err error) {
	if d.Arrival, err = arrivalOf(ctx, h, machineID); err != nil {
		return d, err
	}
	var arrived string
	if d.Arrival.Lot != nil {
		arrived = d.Arrival.Lot.Arrived
	}
	if d.Chain, err = arrivals.ChainOf(ctx, h, actor, machineID, input.DateOf(arrived)); err != nil {
		return d, err
	}
	if d.PersonalData, err = people.PersonalDataOf(ctx, h, machineID); err != nil {
		return d, err
	}
	if d.Locations, err = inventory.LocationsOf(ctx, h, machineID); err != nil {
		return d, err
	}
	d.SharedIdentifiers, err = appevidence.SharedIdentifiersOf(ctx, h, machineRef(machineID), false)
	return d, err
}

func machineRef(id int64) appevidence.RecordRef {
	return appevidence.RecordRef{Kind: "machine", ID: id}
}

func (d Dossier) judgeStages(seen exterior.Sheet) DossierStages {
	s := DossierStages{Walk: seen.Walk()}
	s.Arrive, s.ArriveMissing = arrival.StageOf(d.facts())
	judged := appevidence.FactsOf(d.Known)
	s.EvidenceSettled = facts.CountOf(judged, facts.Settled)
	undecided := 0
	for _, m := range d.SharedIdentifiers {
		if m.Decision == "" {
			undecided++
		}
	}
	s.LookOver, s.LookOverLeft = seen.StageOf(facts.CountOf(judged, facts.Disputed)+undecided,
		func(attribute string) bool {
			for _, k := range d.Known {
				if k.Attribute.Key == attribute {
					return k.IsRead()
				}
			}
			return false
		})
	return s
}

// facts is what the stage of the arrival depends on.
func (d Dossier) facts() arrival.Facts {
	f := arrival.Facts{Links: len(d.Chain.Links), Chain: d.Chain.Problems}
	if l := d.Arrival.Lot; l != nil {
		f.HasAcquisition, f.Method, f.HasDate, f.HasSource = true, l.Method, l.Arrived != "", l.PartyID != nil
		f.HasPrice, f.HasCondition, f.HasPowered, f.SpreadProblem = l.PriceCents != nil, l.Condition != "",
			l.Powered != "", l.SpreadProblem
	}
	for _, p := range d.PersonalData {
		if p.DoneOn == nil {
			f.OpenData++
		}
	}
	return f
}

// verdicts are the lines of the reckoning that follow from the dossier.
func (d Dossier) verdicts(seen exterior.Sheet) []verdict.Verdict {
	verdicts := append(arrival.Verdicts(d.facts()), facts.Verdict(appevidence.FactsOf(d.Known)),
		wiring.TwinsVerdict(d.Twins, d.ExteriorID))
	return append(verdict.Telling(verdicts...), seen.Verdicts(d.ExteriorID)...)
}

// arrivalOf finds the lot that a machine came with.
func arrivalOf(ctx context.Context, h pg.Handle, machineID int64) (Arrival, error) {
	item, err := storearrivals.LotItemOf(ctx, h, &machineID, nil)
	if errors.Is(err, action.ErrNotFound) {
		return Arrival{}, nil
	}
	if err != nil {
		return Arrival{}, err
	}
	return arrivalWith(ctx, h, item)
}

func arrivalWith(ctx context.Context, h pg.Handle, item storearrivals.LotItem) (Arrival, error) {
	l, err := arrivals.ReadLot(ctx, h, item.AcquisitionID)
	if err != nil {
		return Arrival{}, err
	}
	came := Arrival{Lot: &l}
	for i := range l.Things {
		if l.Things[i].ID == item.ID {
			came.Thing = &l.Things[i]
		}
	}
	return came, nil
}

// AssemblyArrival finds the lot that a board or other unit came with, if it came by itself.
func (s *Service) AssemblyArrival(ctx context.Context, actor action.Actor, assemblyID int64) (Arrival, error) {
	if _, err := s.subjects.Inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return Arrival{}, err
	}
	item, err := storearrivals.LotItemOf(ctx, s.kernel.Reader(ctx), nil, &assemblyID)
	if errors.Is(err, action.ErrNotFound) {
		return Arrival{}, nil
	}
	if err != nil {
		return Arrival{}, err
	}
	return arrivalWith(ctx, s.kernel.Reader(ctx), item)
}

// totalsOf adds up the boards of a machine.
func (s *Service) totalsOf(ctx context.Context, actor action.Actor, machine inventory.Machine,
	fitted []sheets.FittedAssembly) (reckoning.Totals, error) {
	library, err := s.subjects.Library.Read(ctx)
	if err != nil {
		return reckoning.Totals{}, err
	}
	boards, _, err := reckonBoards(ctx, library, fitted, inventory.EraOf(machine.EraFrom, machine.EraTo),
		actor.Day(), nil)
	return reckoning.Combine(boards), err
}

// reckonExterior reckons the outside of a machine from a draft of its sheet.
func (s *Service) reckonExterior(ctx context.Context, actor action.Actor, assembly sheets.FittedAssembly,
	draft string) (ReckonedMachine, error) {
	machine, err := s.subjects.Inventory.Machine(ctx, actor, *assembly.MachineID)
	if err != nil {
		return ReckonedMachine{}, err
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machine.ID)
	if err != nil {
		return ReckonedMachine{}, err
	}
	totals, err := s.totalsOf(ctx, actor, machine, fitted)
	if err != nil {
		return ReckonedMachine{}, err
	}
	seen := exterior.Parse(draft)
	dossier, err := s.readDossier(ctx, s.kernel.Reader(ctx), actor, machine, totals, assembly.ID, seen)
	if err != nil {
		return ReckonedMachine{}, err
	}
	return ReckonedMachine{
		Stage: dossier.Stages.LookOver, Verdicts: worked(dossier.verdicts(seen)), Walk: dossier.Stages.Walk,
		Left: dossier.Stages.LookOverLeft,
		Boards: []ReckonedBoard{
			{AssemblyID: assembly.ID, Lines: seen.Lines(), Records: []sheet.Record{}, body: draft},
		},
	}, nil
}
