package setup

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/cardcage"
	"frugalheron/core/configuration"
	"frugalheron/core/reckoning"
	"frugalheron/core/slotplan"
	"frugalheron/core/verdict"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/setup"
)

// BackplaneInput is how the slots of a machine stand.
type BackplaneInput struct {
	Layout string `json:"layout" says:"text" maxLength:"8000" doc:"A line each: row A | 8-bit | 1 2 3 4, chain 1 2 3 4, takes 16-bit | 8-bit, rail +5 | 20 A, base +5 | 2 A"`
	Note   string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// Backplane is that with its version; 0 while nobody wrote one.
type Backplane struct {
	MachineID int64 `json:"machineId"`
	BackplaneInput
	Version int `json:"version"`
}

// OfferedBackplane is that of another machine of the same model.
type OfferedBackplane struct {
	Accession string `json:"accession"`
	BackplaneInput
}

// ThoughtMove is a board or card that is thought elsewhere.
type ThoughtMove struct {
	AssemblyID int64  `json:"assemblyId" minimum:"1"`
	Slot       string `json:"slot" maxLength:"100" doc:"Empty for out of the machine"`
}

// ThoughtMoves is what is thought of.
type ThoughtMoves struct {
	Moves []ThoughtMove `json:"moves" nullable:"false" maxItems:"64" required:"false"`
}

// PlanRow is a row of slots.
type PlanRow struct {
	Chassis string     `json:"chassis" says:"text"`
	Name    string     `json:"name" says:"text"`
	Kind    string     `json:"kind" says:"text"`
	Slots   []PlanSlot `json:"slots"`
}

// PlanSlot is a slot with what sits in it.
type PlanSlot struct {
	ID     string  `json:"id"`
	Chain  int     `json:"chain" doc:"Its place in the order of the bus, from 1; 0 where it is not on the chain"`
	Cards  []int64 `json:"cards" doc:"Assemblies that sit in it, or cover it"`
	Filler bool    `json:"filler" doc:"It needs a filler, as the chain goes through it"`
}

// PlanCard is a card with how it is set.
type PlanCard struct {
	AssemblyID int64      `json:"assemblyId"`
	Version    int        `json:"version" doc:"Of its record"`
	Name       string     `json:"name" says:"text" doc:"As the problems call it"`
	Slot       string     `json:"slot" doc:"In which it sits in this plan; empty where nobody said"`
	OnBoard    bool       `json:"onBoard" doc:"It sits in no slot, as the main board"`
	Fitted     bool       `json:"fitted" doc:"It is in the machine; false for one that is only thought in"`
	Needs      []PlanNeed `json:"needs"`
	Draw       []RailDraw `json:"draw"`
	Wrong      bool       `json:"wrong" doc:"A problem names it"`
}

// PlanNeed is a resource that a card takes.
type PlanNeed struct {
	Resource string   `json:"resource"`
	Now      string   `json:"now" doc:"Empty where nobody noted it"`
	Choices  []string `json:"choices"`
	Shared   bool     `json:"shared"`
}

// RailDraw is what is drawn on a rail.
type RailDraw struct {
	Rail    string  `json:"rail"`
	Amperes float64 `json:"amperes"`
}

// PlanRail is a rail with its headroom.
type PlanRail struct {
	Rail     string   `json:"rail"`
	Draw     float64  `json:"draw" doc:"Amperes"`
	Rating   *float64 `json:"rating" doc:"Null where nobody said"`
	Headroom *float64 `json:"headroom" doc:"Negative when over"`
}

// PlanProblem is what does not go together.
type PlanProblem struct {
	Kind   slotplan.Kind `json:"kind" enum:"kind,order,overlap,rail,chain,span,blocks,beside,first,impossible"`
	Cards  []string      `json:"cards" says:"text"`
	Detail string        `json:"detail" says:"text"`
}

// SlotPlan is what sits in which slot, whether that goes together, and what would.
type SlotPlan struct {
	Backplane Backplane              `json:"backplane"`
	Offered   []OfferedBackplane     `json:"offered" doc:"Backplanes of other machines of the model, while this one has none"`
	OK        bool                   `json:"ok" doc:"Nothing that is known is wrong; a filler may be missing"`
	Rows      []PlanRow              `json:"rows"`
	Cards     []PlanCard             `json:"cards"`
	Rails     []PlanRail             `json:"rails"`
	Undrawn   []string               `json:"undrawn" says:"text" doc:"Cards of which nobody said what they draw"`
	Problems  []PlanProblem          `json:"problems"`
	Solvable  bool                   `json:"solvable"`
	Proposal  cardcage.Rearrangement `json:"proposal" doc:"What makes all go together with the fewest moves, then the fewest settings"`
	Fillers   []string               `json:"fillers" doc:"Slots that need one once that is done"`
	Remarks   []string               `json:"remarks" says:"text" doc:"What no record says, and so breaks no rule"`
	Refused   string                 `json:"refused" says:"text" doc:"Why there is no plan; empty where there is one"`
}

var backplanes = documentsOf(setup.Backplane, "the backplane", eventChangeBackplane, tellBackplane,
	func(v Backplane) any { return v.BackplaneInput })

func tellBackplane(row setup.Document) Backplane {
	kept, _ := action.ReadKept[BackplaneInput](row.Body) // written by this package alone
	return Backplane{row.MachineID, kept, row.Version}
}

// ChangeBackplane writes how the slots of a machine stand, from the version that somebody saw.
func (s *Service) ChangeBackplane(ctx context.Context, actor action.Actor, machineID int64, version int,
	in BackplaneInput) (Backplane, error) {
	err := input.CheckAll(input.Lines("layout", &in.Layout), input.Lines("note", &in.Note))
	if err == nil {
		_, err = cardcage.Parse(in.Layout)
		err = refusedIn("layout", err)
	}
	if err != nil {
		return Backplane{}, err
	}
	return backplanes.change(ctx, s.kernel, actor, machineID, version, in)
}

// SlotPlan tells what sits in which slot, with what is thought of.
func (s *Service) SlotPlan(ctx context.Context, actor action.Actor, machineID int64, in ThoughtMoves) (SlotPlan,
	error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (SlotPlan, error) {
		told := SlotPlan{Offered: []OfferedBackplane{}, Rows: []PlanRow{}, Cards: []PlanCard{}, Rails: []PlanRail{},
			Undrawn: []string{}, Problems: []PlanProblem{}, Fillers: []string{}, Remarks: []string{},
			Proposal: cardcage.Rearrangement{Moves: []cardcage.Move{}, Sets: []cardcage.Set{}, Notes: []string{}}}
		if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
			return told, err
		}
		h := s.kernel.Reader(ctx)
		row, err := setup.DocumentOf(ctx, h, setup.Backplane, machineID)
		if err != nil {
			return told, err
		}
		told.Backplane = tellBackplane(row)
		if told.Backplane.Layout == "" {
			rows, err := setup.DocumentsOfModel(ctx, h, setup.Backplane, machineID, mostOffers)
			if err != nil {
				return told, err
			}
			for _, one := range rows {
				kept := tellBackplane(setup.Document{Body: one.Body})
				told.Offered = append(told.Offered, OfferedBackplane{one.Accession, kept.BackplaneInput})
			}
		}
		cage, versions, err := s.cage(ctx, actor, machineID, told.Backplane, in)
		if err != nil {
			return told, err
		}
		told.draw(cage, versions)
		return told, nil
	})
}

// cage fills that of a machine by its records. It tells the versions of the boards that are in it.
func (s *Service) cage(ctx context.Context, actor action.Actor, machineID int64, written Backplane,
	in ThoughtMoves) (cage cardcage.Cage, versions map[int64]int, err error) {
	h := s.kernel.Reader(ctx)
	backplane, err := cardcage.Parse(written.Layout)
	if err != nil {
		return cage, nil, err // what is kept was checked
	}
	today, err := s.today(ctx, h, machineID)
	if err != nil {
		return cage, nil, err
	}
	versions, moves := map[int64]int{}, map[int64]string{}
	for _, c := range today {
		versions[c.AssemblyID] = c.version
	}
	for i, m := range in.Moves {
		moves[m.AssemblyID] = m.Slot
		if versions[m.AssemblyID] > 0 {
			continue
		}
		more, err := s.thoughtIn(ctx, m.AssemblyID)
		err = input.Missing(err, fmt.Sprintf("moves[%d].assemblyId", i), fmt.Sprintf("there is no board %d",
			m.AssemblyID))
		if err != nil {
			return cage, nil, err
		}
		today = append(today, more)
	}
	noted, err := s.noted(ctx, machineID)
	if err != nil {
		return cage, nil, err
	}
	drawn, err := setup.DrawOf(ctx, h, ids(today))
	if err != nil {
		return cage, nil, err
	}
	cards := []cardcage.Card{}
	for _, c := range today {
		one := cardcage.Card{ID: c.AssemblyID, Title: c.Title, Part: c.part, Kind: c.kind, Slot: c.Slot,
			Known:   c.records.names,
			Details: c.records.details, IsSure: c.records.isSure, Drawn: map[string]float64{}}
		one.Settings = configuration.DecodeBy(c.records.settings, noted[c.AssemblyID])
		byRail, err := action.ReadKept[map[string]reckoning.Draw](drawn[c.AssemblyID])
		if err == nil {
			for rail, draw := range byRail {
				if draw.Counted > 0 {
					one.Drawn[rail] = draw.TypicalA
				}
			}
		}
		cards = append(cards, one)
	}
	ratings, err := s.power.Ratings(ctx, machineID)
	if err != nil {
		return cage, nil, err
	}
	return cardcage.Fill(&backplane, cards, ratings, moves), versions, nil
}

func ids(cards []cardToday) []int64 {
	found := []int64{}
	for _, c := range cards {
		found = append(found, c.AssemblyID)
	}
	return found
}

// thoughtIn is an assembly that is elsewhere.
func (s *Service) thoughtIn(ctx context.Context, id int64) (cardToday, error) {
	h := s.kernel.Reader(ctx)
	a, err := storeinventory.AssemblyByID(ctx, h, id)
	if err == nil && (a.IsVoided || a.IsExterior()) {
		err = action.ErrNotFound
	}
	if err != nil {
		return cardToday{}, err
	}
	records, err := s.known(ctx, h, []int64{id})
	return cardToday{CardToday: CardToday{AssemblyID: id, Title: a.Title}, kind: a.Kind, part: a.Part,
		records: records[id]}, err
}

// noted is how each board was set by the newest configuration that says so.
func (s *Service) noted(ctx context.Context, machineID int64) (map[int64][]configuration.Setting, error) {
	rows, err := setup.Noted(ctx, s.kernel.Reader(ctx), machineID, mostConfigurations)
	found := map[int64][]configuration.Setting{}
	for _, row := range rows {
		for _, c := range tell(row).Cards {
			if c.AssemblyID == nil || len(found[*c.AssemblyID]) > 0 {
				continue
			}
			found[*c.AssemblyID], _ = configuration.ParseSettings(c.Settings)
		}
	}
	return found, err
}

// MovedCards are cards that were moved, and set, as it was planned.
type MovedCards struct {
	Moves []MovedCard    `json:"moves" nullable:"false" maxItems:"64"`
	Sets  []cardcage.Set `json:"sets" nullable:"false" maxItems:"256" required:"false" doc:"Those of the proposal that were set so; they become a configuration of today"`
}

// MovedCard is one, from the version that somebody saw.
type MovedCard struct {
	AssemblyID int64  `json:"assemblyId" minimum:"1"`
	Version    int    `json:"version" minimum:"1"`
	Slot       string `json:"slot" maxLength:"100"`
}

// Moved says that cards of a machine sit elsewhere in it, and how they are set now: all of that or nothing.
func (s *Service) Moved(ctx context.Context, actor action.Actor, machineID int64, in MovedCards) error {
	return s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		for i, m := range in.Moves {
			at := fmt.Sprintf("moves[%d]", i)
			row, err := storeinventory.AssemblyByID(ctx, tx, m.AssemblyID)
			if err == nil && (row.MachineID == nil || *row.MachineID != machineID) {
				err = action.ErrNotFound
			}
			if err := input.Missing(err, at+".assemblyId", fmt.Sprintf("board %d is not in the machine",
				m.AssemblyID)); err != nil {
				return err
			}
			fields := inventory.AssemblyInput(row.AssemblyFields)
			fields.Slot = m.Slot
			if _, err := s.inventory.ChangeAssembly(ctx, actor, m.AssemblyID, m.Version, fields); err != nil {
				return err
			}
		}
		if len(in.Sets) == 0 {
			return nil
		}
		set, err := s.asSet(ctx, actor, tx, machineID, in)
		if err != nil {
			return err
		}
		if err := set.check(actor); err != nil {
			return err
		}
		_, err = keep(ctx, tx, actor, machineID, set)
		return err
	})
}

// asSet is how a machine is set up now: as the newest configuration says, with what was set and moved.
func (s *Service) asSet(ctx context.Context, actor action.Actor, tx *sqlx.Tx, machineID int64,
	in MovedCards) (ConfigurationInput, error) {
	rows, err := setup.Configurations(ctx, tx, machineID, 1)
	if err != nil {
		return ConfigurationInput{}, err
	}
	now := ConfigurationInput{}
	if len(rows) > 0 {
		now = tell(rows[0]).ConfigurationInput
	}
	now.Title, now.Kind, now.On, now.Note = "as the slots were planned", "changed", actor.Today(), ""
	before := now.Cards
	now.Cards = nil
	assemblies, err := storeinventory.AssembliesOf(ctx, tx, machineID)
	for _, a := range assemblies {
		if a.IsExterior() {
			continue
		}
		card := ConfiguredCard{AssemblyID: &a.ID, Title: a.Title, Slot: a.Slot}
		for _, c := range before {
			if c.AssemblyID != nil && *c.AssemblyID == a.ID {
				card.Settings = c.Settings
			}
		}
		for _, set := range in.Sets {
			if set.AssemblyID == a.ID {
				card.Settings = set.Written(card.Settings)
			}
		}
		now.Cards = append(now.Cards, card)
	}
	return now, err
}

// slotsVerdict is the line of the reckoning that follows from what sits in the slots.
func (s *Service) slotsVerdict(ctx context.Context, actor action.Actor, machineID int64) (verdict.Verdict, error) {
	row, err := setup.DocumentOf(ctx, s.kernel.Reader(ctx), setup.Backplane, machineID)
	if err != nil {
		return verdict.Verdict{}, err
	}
	cage, _, err := s.cage(ctx, actor, machineID, tellBackplane(row), ThoughtMoves{})
	return cage.Verdict(), err
}
