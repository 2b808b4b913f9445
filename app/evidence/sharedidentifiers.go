package evidence

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/evidence"
)

// SharedIdentifiers lists the identifiers that a record shares with others.
func (s *Service) SharedIdentifiers(ctx context.Context, actor action.Actor,
	record evidence.RecordRef) ([]evidence.SharedIdentifier, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return evidence.SharedIdentifiersOf(ctx, s.kernel.Reader(ctx), record, actor.Hides())
}

// SharedIdentifierDecision says what an identifier means that two records share.
type SharedIdentifierDecision struct {
	Key      string             `json:"key" maxLength:"400"`
	One      evidence.RecordRef `json:"one"`
	Other    evidence.RecordRef `json:"other"`
	Decision string             `json:"decision" enum:"linked,dismissed"`
	Reason   string             `json:"reason" says:"text" maxLength:"400"`
}

// DecideSharedIdentifier says what an identifier that two records share means: that they belong together, or that
// it is by chance or by mistake.
func (s *Service) DecideSharedIdentifier(ctx context.Context, actor action.Actor, d SharedIdentifierDecision) error {
	if err := input.OneLine("reason", &d.Reason); err != nil {
		return err
	}
	if d.Reason == "" {
		return action.Reject("reason", "say why, so that whoever finds it next need not ask again")
	}
	return s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		sharedIdentifiers, err := evidence.SharedIdentifiersOf(ctx, tx, d.One, false)
		if err != nil {
			return err
		}
		for _, m := range sharedIdentifiers {
			if m.Key != d.Key || m.Other != d.Other {
				continue
			}
			if err := evidence.DecideSharedIdentifier(ctx, tx, d.Key, d.One, d.Other, actor.Account(), d.Decision,
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
			return action.Record(ctx, tx, actor, eventDecideSharedIdentifier.Of(subject), d.One.ID, machine, nil, told)
		}
		return action.Reject("key", "the two do not share this identifier any more")
	})
}
