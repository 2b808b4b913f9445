package evidence

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/evidence"
	"frugalheron/store/pg"
)

// SharedIdentifiers lists the identifiers that a record shares with others.
func (s *Service) SharedIdentifiers(ctx context.Context, actor action.Actor,
	record RecordRef) ([]SharedIdentifier, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return SharedIdentifiersOf(ctx, s.kernel.Reader(ctx), record, actor.Hides())
}

// SharedIdentifiersOf lists the identifiers that a record shares with others; for viewers those that stand in
// documents for staff are left out.
func SharedIdentifiersOf(ctx context.Context, h pg.Handle, record RecordRef,
	forViewers bool) ([]SharedIdentifier, error) {
	rows, err := evidence.SharedIdentifiersOf(ctx, h, evidence.RecordRef(record), forViewers)
	return action.Views(rows, sharedIdentifierOf), err
}

// SharedIdentifierDecision says what an identifier means that two records share.
type SharedIdentifierDecision struct {
	Key      string    `json:"key" maxLength:"400"`
	One      RecordRef `json:"one"`
	Other    RecordRef `json:"other"`
	Decision string    `json:"decision" enum:"linked,dismissed"`
	Reason   string    `json:"reason" says:"text" maxLength:"400"`
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
	one, other := evidence.RecordRef(d.One), evidence.RecordRef(d.Other)
	return s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		sharedIdentifiers, err := evidence.SharedIdentifiersOf(ctx, tx, one, false)
		if err != nil {
			return err
		}
		for _, m := range sharedIdentifiers {
			if m.Key != d.Key || m.Other != other {
				continue
			}
			if err := evidence.DecideSharedIdentifier(ctx, tx, d.Key, one, other, actor.Account(), d.Decision,
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
