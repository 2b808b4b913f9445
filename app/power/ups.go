package power

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/gate"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/power"
)

// UpInput is that power was applied: with which rungs at once, and what was seen.
type UpInput struct {
	RungIDs   []int64 `json:"rungIds" minItems:"1" maxItems:"60" doc:"The rungs that were tried at once: one, or several where everything was switched on"`
	Result    string  `json:"result" enum:"as-expected,not"`
	On        string  `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Seen      string  `json:"seen" says:"text" maxLength:"2000" required:"false" doc:"What was seen, heard, smelt"`
	DecidedBy string  `json:"decidedBy" says:"text" maxLength:"200" required:"false" doc:"Who decided to apply power although the gate kept it away"`
	Why       string  `json:"why" says:"text" maxLength:"1000" required:"false" doc:"Why that was decided"`
}

// PowerUpView is a time that power was applied.
type PowerUpView struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	UpInput
	Gate    gate.State `json:"gate" enum:"hold,supply-only,staged,cleared" doc:"How the gate stood then, by what was recorded"`
	Steps   []string   `json:"steps" says:"text" doc:"The words of the rungs as they were then"`
	By      string     `json:"by"`
	Version int        `json:"version"`
}

// keptUp is what is kept of one beside its day.
type keptUp struct {
	UpInput
	Gate  gate.State `json:"gate"`
	Steps []string   `json:"steps"`
}

func tellUp(row power.Up) PowerUpView {
	kept, _ := action.ReadKept[keptUp](row.Body)
	kept.On = row.On
	return PowerUpView{ID: row.ID, MachineID: row.MachineID, UpInput: kept.UpInput, Gate: kept.Gate,
		Steps: append([]string{}, kept.Steps...), By: row.By, Version: row.Version}
}

func (u PowerUpView) inWords() map[string]any {
	return map[string]any{"on": u.On, "rungs": strings.Join(u.Steps, ", "), "result": u.Result, "seen": u.Seen,
		"gate": string(u.Gate), "decidedBy": u.DecidedBy, "why": u.Why}
}

var ups = action.Records[power.Up, PowerUpView]{What: "the power-up", Lock: power.LockUp, Read: power.UpByID,
	Version: func(r power.Up) int { return r.Version }, Told: func(r power.Up) any { return tellUp(r).inWords() },
	View: tellUp, Machine: func(r power.Up) *int64 { return &r.MachineID }}

// Upped is a power-up that was kept, and the event by which that can be undone.
type Upped struct {
	PowerUpView
	Event int64 `json:"event" doc:"The event of the history, by which the action can be undone"`
}

// PowerUp keeps that power was applied. What was done is recorded, whatever the gate said; against it, with who decided.
func (s *Service) PowerUp(ctx context.Context, actor action.Actor, machineID int64, in UpInput) (Upped, error) {
	err := input.CheckAll(input.Lines("seen", &in.Seen), input.OneLine("decidedBy", &in.DecidedBy),
		input.Lines("why", &in.Why))
	if err != nil {
		return Upped{}, err
	}
	if in.On == "" {
		in.On = actor.Today()
	}
	if err := input.PastDay("on", in.On, actor.Today()); err != nil {
		return Upped{}, err
	}
	if in.Result == "not" && in.Seen == "" {
		return Upped{}, action.Reject("seen", "say what was not as expected")
	}
	var kept Upped
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		rows, err := power.RungsOf(ctx, tx, machineID)
		if err != nil {
			return err
		}
		body := keptUp{UpInput: in, Steps: []string{}}
		for _, id := range in.RungIDs {
			at := slices.IndexFunc(rows, func(r power.Rung) bool { return r.ID == id })
			if at < 0 {
				return action.Reject("rungIds", fmt.Sprintf("rung %d is not on the ladder of this machine", id))
			}
			body.Steps = append(body.Steps, tellRung(rows[at]).Step)
		}
		r, err := s.read(ctx, tx, actor, machineID)
		if err != nil {
			return err
		}
		body.Gate = r.out.State
		if body.Gate == gate.Hold || body.Gate == gate.SupplyOnly {
			switch {
			case in.DecidedBy == "":
				return action.Reject("decidedBy", fmt.Sprintf(
					"the gate stands at %s: say who decided to apply power all the same", body.Gate))
			case in.Why == "":
				return action.Reject("why", fmt.Sprintf("the gate stands at %s: say why it was decided", body.Gate))
			}
		}
		id, err := power.InsertUp(ctx, tx, actor.Account(), machineID, in.On, action.ToKeep(body))
		if err != nil {
			return err
		}
		row, err := power.UpByID(ctx, tx, id)
		if err != nil {
			return err
		}
		kept.PowerUpView = tellUp(row)
		kept.Event, err = action.RecordEvent(ctx, tx, actor, eventPowerUp, id, &machineID, nil, kept.inWords())
		return err
	})
	return kept, err
}

var voidedUps = action.Voiding[power.Up]{Roles: action.MayWriteSheets, Event: eventVoidPowerUp,
	Back: eventTakeBackVoidOfPowerUp, IsVoided: func(r power.Up) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r power.Up, voided bool) error {
		return power.VoidUp(ctx, tx, r.ID, voided)
	}}

// VoidPowerUp strikes one out that was entered by mistake.
func (s *Service) VoidPowerUp(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return ups.Void(ctx, s.kernel, actor, voidedUps, id, version)
}

func (s *Service) undoPowerUp(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, power.LockUp,
		func(ctx context.Context, _ *sqlx.Tx, now power.Up) error {
			return action.Second(s.VoidPowerUp(ctx, actor, now.ID, now.Version))
		})
}

func (s *Service) undoVoidPowerUp(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return ups.Unvoid(ctx, s.kernel, actor, voidedUps, e)
}
