package upkeep

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	corecondition "frugalheron/core/condition"
	"frugalheron/core/job"
	"frugalheron/core/quantity"
	"frugalheron/core/sheet"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
	storeupkeep "frugalheron/store/upkeep"
)

// AnswerInput is what somebody says who was at a stop.
type AnswerInput struct {
	How      string        `json:"how" enum:"did,seen,not" doc:"Done; seen, which counts where a look is enough; or not, with why"`
	On       string        `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	SaidAt   *time.Time    `json:"saidAt,omitempty" doc:"When it was said, where no day is: what waited on a device was not done on the day on which it was sent"`
	Why      string        `json:"why" says:"text" maxLength:"500" required:"false" doc:"Why it could not be done"`
	Note     string        `json:"note" says:"text" maxLength:"1000" required:"false"`
	Measured string        `json:"measured" says:"text" maxLength:"400" required:"false" doc:"What was measured, as it is typed: BT1 3.58 V"`
	Found    *FoundAtStop  `json:"found,omitempty" doc:"What was found there"`
	Now      []FindingSeen `json:"now" maxItems:"20" required:"false" doc:"How findings are now that were open there"`
	TakenOut bool          `json:"takenOut" required:"false" doc:"The parts were taken out: their places are empty from now on"`
}

// FoundAtStop is something that was found at a stop.
type FoundAtStop struct {
	Kind     string                 `json:"kind" maxLength:"100" doc:"As leaking, or corroded"`
	Severity corecondition.Severity `json:"severity" enum:",cosmetic,watch,repair,hazard" required:"false" doc:"As is usual for that, when it is left out"`
}

// FindingSeen is how a finding is now.
type FindingSeen struct {
	Key string `json:"key" maxLength:"40"`
	How string `json:"how" enum:"same,worse,better,gone"`
}

// keptDeed is what is kept of a deed beside what is counted.
type keptDeed struct {
	Task      string  `json:"task"`
	Name      string  `json:"name"`
	Why       string  `json:"why,omitempty"`
	Note      string  `json:"note,omitempty"`
	Measured  string  `json:"measured,omitempty"`
	Found     string  `json:"found,omitempty"`
	TakenOut  bool    `json:"takenOut,omitempty"`
	MeasureID *int64  `json:"measureId,omitempty"`
	Boards    []int64 `json:"boards,omitempty"`
}

// Deed is what was done, or seen, or could not be done, by a rule.
type Deed struct {
	ID       int64  `json:"id"`
	RuleID   int64  `json:"ruleId"`
	RoundID  *int64 `json:"roundId" doc:"Null for what was done by itself"`
	Task     string `json:"task" says:"text"`
	How      string `json:"how" enum:"did,seen,not"`
	On       string `json:"on"`
	Why      string `json:"why" says:"text"`
	Note     string `json:"note" says:"text"`
	Measured string `json:"measured" says:"text"`
	Found    string `json:"found" says:"text"`
	TakenOut bool   `json:"takenOut"`
	By       string `json:"by"`
	Version  int    `json:"version"`
}

func tellDeed(row storeupkeep.Deed) Deed {
	kept, _ := action.ReadKept[keptDeed](row.Body) // written by this package alone
	return Deed{ID: row.ID, RuleID: row.RuleID, RoundID: row.RoundID, Task: kept.Task, How: row.How, On: row.On,
		Why:  kept.Why,
		Note: kept.Note, Measured: kept.Measured, Found: kept.Found, TakenOut: kept.TakenOut, By: row.By,
		Version: row.Version}
}

func (d Deed) told() map[string]any {
	return map[string]any{"task": d.Task, "how": d.How, "on": d.On, "why": d.Why, "note": d.Note,
		"measured": d.Measured,
		"found":    d.Found, "takenOut": d.TakenOut}
}

// check refuses what cannot be, and says on which day it was: of what was said by a clock that goes wrong, on the first day
// or the last on which it can have been.
func (in *AnswerInput) check(actor action.Actor, begun string) error {
	err := input.CheckAll(input.OneLine("why", &in.Why), input.Lines("note", &in.Note), input.OneLine("measured",
		&in.Measured))
	if err != nil {
		return err
	}
	if in.On == "" && in.SaidAt != nil {
		in.On = min(max(actor.DayOf(*in.SaidAt), begun), actor.Today())
	}
	in.On = cmp.Or(in.On, actor.Today())
	if err := input.PastDay("on", in.On, actor.Today()); err != nil {
		return err
	}
	if in.On < begun {
		return action.Reject("on", fmt.Sprintf("the round was begun on %s", begun))
	}
	if in.Found != nil {
		if err := input.OneLine("found", &in.Found.Kind); err != nil {
			return err
		}
	}
	switch {
	case in.How == "not" && in.Why == "":
		return action.Reject("why", "say why it could not be done: not found, locked, no light")
	case in.How == "not" && (in.TakenOut || in.Measured != "" || in.Found != nil || len(in.Now) > 0):
		return action.Reject("how", "something was done or seen there, so somebody was there; choose done or seen")
	case in.How != "not" && in.Why != "":
		return action.Reject("why", "is said of what could not be done; write it as a note")
	case in.How == "seen" && in.TakenOut:
		return action.Reject("takenOut", "what was taken out was not only seen; choose done")
	case in.Found != nil && in.Found.Kind == "":
		return action.Reject("found", "say what was found: leaking")
	}
	return nil
}

// Answer says what somebody did or saw at a stop of a round: a deed, with what was measured and found there, and the parts
// that were taken out. Said again from a version it is corrected: then only how, day, why and note change, as what was
// measured and found has records of its own.
func (s *Service) Answer(ctx context.Context, actor action.Actor, roundID int64, n, version int,
	in AnswerInput) (Deed, error) {
	var told Deed
	err := s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		row, err := storeupkeep.RoundByID(ctx, tx, roundID)
		if err != nil {
			return err
		}
		kept, err := action.ReadKept[keptRound](row.Body)
		if err != nil {
			return err
		}
		if row.Voided || n < 1 || n > len(kept.Stops) {
			return action.ErrNotFound
		}
		if err := in.check(actor, kept.On); err != nil {
			return err
		}
		rule, err := storeupkeep.RuleByID(ctx, tx, row.RuleID)
		if err != nil {
			return err
		}
		told, err = s.answer(ctx, tx, actor, tellRule(rule), kept.Stops[n-1], &roundID, version, in)
		return err
	})
	return told, err
}

// DoneInput is that a task was done to one machine, on no round.
type DoneInput struct {
	RuleID int64 `json:"ruleId"`
	AnswerInput
}

// DoneAt says that a task of a machine was done, or seen, on no round.
func (s *Service) DoneAt(ctx context.Context, actor action.Actor, machineID int64, in DoneInput) (Deed, error) {
	if err := in.check(actor, ""); err != nil {
		return Deed{}, err
	}
	var told Deed
	err := s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		machine, err := inventory.MachineByID(ctx, tx, machineID)
		if err != nil {
			return err
		}
		row, err := storeupkeep.RuleByID(ctx, tx, in.RuleID)
		if err == nil && row.Voided {
			err = action.ErrNotFound
		}
		if err != nil {
			return input.Missing(err, "ruleId", "there is no such rule any more")
		}
		rule := tellRule(row)
		stop := Stop{MachineID: &machineID, Accession: machine.Accession, Name: machine.Name,
			Parts: []condition.ClassPart{}}
		if rule.Of != ofMachine {
			if stop.Parts, err = condition.PartsOfClass(ctx, tx, machineID, 0, rule.Of); err != nil {
				return err
			}
			if len(stop.Parts) == 0 {
				return action.Reject("ruleId", "no part of that class is known in the machine")
			}
		}
		told, err = s.answer(ctx, tx, actor, rule, stop, nil, 0, in.AnswerInput)
		return err
	})
	return told, err
}

// answer keeps what was said of a stop, with all that it makes true elsewhere.
func (s *Service) answer(ctx context.Context, tx *sqlx.Tx, actor action.Actor, rule Rule, stop Stop, roundID *int64,
	version int, in AnswerInput) (Deed, error) {
	// The machine first, as all do who write of it; then the round, which may be ended meanwhile.
	if stop.MachineID != nil {
		if _, err := inventory.LockMachine(ctx, tx, *stop.MachineID); err != nil {
			return Deed{}, err
		}
	} else if stop.AssemblyID != nil && (in.Measured != "" || in.Found != nil || in.TakenOut) {
		return Deed{}, action.Reject("how", "of a board in no machine a round keeps only that it was done or seen; write the rest at the board")
	}
	if roundID != nil {
		round, err := storeupkeep.LockRound(ctx, tx, *roundID)
		if err != nil {
			return Deed{}, err
		}
		if !round.IsOpen {
			return Deed{}, action.Reject("how", "the round has ended; write it at the machine")
		}
		there, err := storeupkeep.DeedsOfRound(ctx, tx, *roundID)
		if err != nil {
			return Deed{}, err
		}
		if at := slices.IndexFunc(there, func(d storeupkeep.Deed) bool { return d.Stop == stop.N }); at >= 0 {
			return s.correct(ctx, tx, actor, there[at], version, in)
		}
	}
	if version != 0 {
		return Deed{}, action.Reject("version", "what was said of this stop was taken back; say it anew")
	}
	kept := keptDeed{Task: rule.Task, Name: stop.Name, Why: in.Why, Note: in.Note, Measured: in.Measured,
		TakenOut: in.TakenOut,
		Boards:   stop.boards()}
	if err := s.seeWhatIsThere(ctx, tx, actor, rule, stop, in, &kept); err != nil {
		return Deed{}, err
	}
	if in.TakenOut {
		if err := s.takeOut(ctx, tx, actor, stop); err != nil {
			return Deed{}, err
		}
	}
	id, err := storeupkeep.InsertDeed(ctx, tx, actor.Account(), storeupkeep.Deed{RuleID: rule.ID, RoundID: roundID,
		Stop:      stop.N,
		MachineID: stop.MachineID, AssemblyID: stop.AssemblyID, Boards: kept.Boards, Of: rule.Of, On: in.On,
		How:  in.How,
		Body: action.ToKeep(kept)})
	if pg.Violates(err, "upkeep_deed_stop_key") {
		return Deed{}, action.Reject("how", "somebody else said something of this stop just now; read the round again")
	}
	if err != nil {
		return Deed{}, err
	}
	row, err := storeupkeep.DeedByID(ctx, tx, id)
	if err != nil {
		return Deed{}, err
	}
	told := tellDeed(row)
	return told, action.Record(ctx, tx, actor, eventAnswerStop, id, stop.MachineID, nil, told.told())
}

// correct says anew how a stop went.
func (s *Service) correct(ctx context.Context, tx *sqlx.Tx, actor action.Actor, row storeupkeep.Deed, version int,
	in AnswerInput) (Deed, error) {
	before := tellDeed(row)
	if row.Version != version {
		return Deed{}, &action.Stale{What: "what was said of the stop", Newer: before}
	}
	if in.TakenOut && !before.TakenOut || in.Found != nil || len(in.Now) > 0 || in.Measured != "" &&
		in.Measured != before.Measured {
		return Deed{}, action.Reject("how", "only how it went, day and note are corrected here; write the rest at the machine")
	}
	if in.How == "not" && (before.TakenOut || before.Measured != "" || before.Found != "") {
		return Deed{}, action.Reject("how", "something was measured, found or taken out there, so somebody was there; correct that at the machine first")
	}
	kept, err := action.ReadKept[keptDeed](row.Body)
	if err != nil {
		return Deed{}, err
	}
	kept.Why, kept.Note = in.Why, in.Note
	row.How, row.On, row.Body = in.How, in.On, action.ToKeep(kept)
	if err := storeupkeep.UpdateDeed(ctx, tx, row); err != nil {
		return Deed{}, err
	}
	row.Version++
	after := tellDeed(row)
	return after, action.Record(ctx, tx, actor, eventChangeAnswer, row.ID, row.MachineID, before.told(), after.told())
}

// seeWhatIsThere keeps what was measured and found at a stop, and how findings are now.
func (s *Service) seeWhatIsThere(ctx context.Context, tx *sqlx.Tx, actor action.Actor, rule Rule, stop Stop,
	in AnswerInput,
	kept *keptDeed) error {
	if stop.MachineID == nil {
		return nil
	}
	subsystem := condition.SubsystemOfClass(rule.Of)
	place, board := "", (*int64)(nil)
	if len(stop.Parts) > 0 {
		place, board = strings.ReplaceAll(stop.Parts[0].Place, " ", ","), &stop.Parts[0].AssemblyID
	}
	if in.Measured != "" {
		line := stop.withPoint(in.Measured, rule.Measures)
		m, err := s.condition.Measure(ctx, actor, *stop.MachineID, condition.MeasurementInput{Line: line, On: in.On,
			Note: "on a round: " + rule.Task})
		if err != nil {
			var refused *action.Invalid
			if errors.As(err, &refused) {
				return action.Reject("measured", refused.Why)
			}
			return err
		}
		kept.MeasureID, kept.Measured = &m.ID, strings.TrimSpace(m.Point+" "+m.Judged.InWords)
	}
	for _, seen := range in.Now {
		noted := condition.NotedFinding{Subsystem: subsystem, On: in.On,
			ObservedFinding: condition.ObservedFinding{Key: seen.Key,
				Gone: seen.How == "gone", Note: "on a round: " + rule.Task}}
		if seen.How != "gone" {
			noted.Trend = seen.How
		}
		if err := s.seeAgain(ctx, actor, *stop.MachineID, noted); err != nil {
			return err
		}
	}
	if in.Found == nil {
		return nil
	}
	f := condition.FindingInput{Kind: in.Found.Kind, AssemblyID: board, Designator: designatorOf(place),
		Subsystem: subsystem}
	if f.Designator == "" {
		f.Place = place
	}
	f.Subsystem = cmp.Or(f.Subsystem, corecondition.SubsystemOfPlace(place, f.Kind))
	severity := cmp.Or(in.Found.Severity, corecondition.SeverityOf(f.Subsystem, f.Kind, place))
	kept.Found = in.Found.Kind
	return action.Second(s.condition.NoteFinding(ctx, actor, *stop.MachineID,
		condition.NotedFinding{Subsystem: f.Subsystem, On: in.On,
			ObservedFinding: condition.ObservedFinding{New: &f, Severity: severity, Note: "on a round: " + rule.Task}}))
}

// seeAgain says how a finding is now that was open there.
func (s *Service) seeAgain(ctx context.Context, actor action.Actor, machineID int64,
	noted condition.NotedFinding) error {
	how, err := s.condition.Condition(ctx, actor, machineID)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(how.Findings, func(f condition.FindingView) bool { return f.Key == noted.Key })
	if at < 0 {
		return action.Reject("now", "one of the findings is not there any more; read the round again")
	}
	found := how.Findings[at]
	noted.Severity, noted.Subsystem = found.Story.Severity, found.Subsystem
	if found.ID != 0 {
		noted.FindingID, noted.Key = found.ID, ""
	}
	return action.Second(s.condition.NoteFinding(ctx, actor, machineID, noted))
}

// bareFigure is a figure without a unit.
var bareFigure = regexp.MustCompile(`^-?[0-9]+([.,][0-9]+)?$`)

// withPoint writes what was measured with the unit of what is measured there, and with the part that it was measured on,
// where the words say neither and the stop is about one.
func (p Stop) withPoint(line string, measures quantity.Quantity) string {
	if bareFigure.MatchString(line) && measures != "" {
		if measures == quantity.ESR {
			line = "ESR " + line + " ohm"
		} else {
			line += " " + measures.Unit()
		}
	}
	if len(p.Parts) == 1 && (line[0] >= '0' && line[0] <= '9' || strings.HasPrefix(line, "ESR ")) {
		if point := strings.Fields(p.Parts[0].Place); len(point) == 1 && sheet.IsDesignator(point[0]) {
			return point[0] + " " + line
		}
	}
	return line
}

// designatorOf is what names parts, if a place does so in so few letters as a finding takes; else empty.
func designatorOf(place string) string {
	if len(place) > 40 || len(sheet.Designators(place, 1)) == 0 {
		return ""
	}
	return place
}

// takeOut writes onto the sheets that the places of a stop's parts are empty.
func (s *Service) takeOut(ctx context.Context, tx *sqlx.Tx, actor action.Actor, stop Stop) error {
	if len(stop.Parts) == 0 {
		return action.Reject("takenOut", "the task is about the machine as a whole: nothing of it stands on a sheet")
	}
	for _, board := range stop.boards() {
		newest, err := sheets.NewestRevision(ctx, tx, board)
		if err != nil {
			return input.Missing(err, "takenOut", "the board has no sheet: say at the machine what was taken out")
		}
		body := newest.Body
		for _, part := range stop.Parts {
			if part.AssemblyID != board {
				continue
			}
			for _, place := range strings.Fields(part.Place) {
				if body, err = job.TakeOutOf(body, place); err != nil {
					return action.Reject("takenOut", err.Error())
				}
			}
		}
		if err := action.Second(s.sheets.SaveSheet(ctx, actor, board, newest.N, body)); err != nil {
			return err
		}
	}
	return nil
}

// undoAnswer takes back what was said of a stop. What was measured, found and written onto sheets stays: each has its own
// way back.
func (s *Service) undoAnswer(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, storeupkeep.LockDeed,
		func(ctx context.Context, tx *sqlx.Tx, now storeupkeep.Deed) error {
			now.Voided = true
			if err := storeupkeep.UpdateDeed(ctx, tx, now); err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventTakeBackAnswer, now.ID, now.MachineID, nil, tellDeed(now).told())
		})
}
