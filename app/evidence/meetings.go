package evidence

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/evidence"
)

// Meetings lists the identifiers that a record shares with others.
func (s *Service) Meetings(ctx context.Context, actor action.Actor,
	record evidence.RecordRef) ([]evidence.Meeting, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return evidence.MeetingsOf(ctx, s.kernel.Reader(ctx), record, actor.Hides())
}

// MeetingDecision says what an identifier means that two records share.
type MeetingDecision struct {
	Key      string             `json:"key" maxLength:"400"`
	One      evidence.RecordRef `json:"one"`
	Other    evidence.RecordRef `json:"other"`
	Decision string             `json:"decision" enum:"linked,dismissed"`
	Reason   string             `json:"reason" says:"text" maxLength:"400"`
}

// DecideMeeting says what an identifier that two records share means: that they belong together, or that
// it is by chance or by mistake.
func (s *Service) DecideMeeting(ctx context.Context, actor action.Actor, d MeetingDecision) error {
	if err := input.OneLine("reason", &d.Reason); err != nil {
		return err
	}
	if d.Reason == "" {
		return action.Reject("reason", "say why, so that whoever finds it next need not ask again")
	}
	return s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		meetings, err := evidence.MeetingsOf(ctx, tx, d.One, false)
		if err != nil {
			return err
		}
		for _, m := range meetings {
			if m.Key != d.Key || m.Other != d.Other {
				continue
			}
			if err := evidence.DecideMeeting(ctx, tx, d.Key, d.One, d.Other, actor.Account(), d.Decision,
				d.Reason); err != nil {
				return err
			}
			subject, machine := d.One.Kind, (*int64)(nil)
			switch d.One.Kind {
			case "machine":
				machine = &d.One.ID
			case "lot":
				subject = "acquisition"
			}
			told := map[string]string{"value": m.Value, "other": m.Name, "decision": d.Decision, "reason": d.Reason}
			return action.Record(ctx, tx, actor, eventDecideMeeting.Of(subject), d.One.ID, machine, nil, told)
		}
		return action.Reject("key", "the two do not share this identifier any more")
	})
}
