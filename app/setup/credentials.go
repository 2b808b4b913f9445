package setup

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	storehistory "frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/setup"
)

// CredentialInput is what one signs on with, or a licence key, but for its secret.
type CredentialInput struct {
	What           string `json:"what" says:"text" maxLength:"200" example:"sign-on of the operator"`
	Kind           string `json:"kind" enum:"sign-on,licence key,other" default:"sign-on" required:"false"`
	User           string `json:"user" says:"text" maxLength:"200" required:"false" doc:"The name that goes with it"`
	ForTechnicians bool   `json:"forTechnicians" required:"false" doc:"Technicians may look at it, too"`
	Note           string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// Credential is that. Its secret is told to who asks for it by itself, and that is kept in the history.
type Credential struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	CredentialInput
	MayLook bool `json:"mayLook" doc:"Whoever asks may look at its secret"`
	Version int  `json:"version"`
}

// Credentials are those of a machine.
type Credentials struct {
	Credentials []Credential `json:"credentials"`
}

// Secret is that of a credential.
type Secret struct {
	Secret string `json:"secret"`
}

// mostSecret is how long one may be, in bytes.
const mostSecret = 2000

// mostCredentials bounds what is told of one machine.
const mostCredentials = 100

func tellCredential(row setup.Credential) Credential {
	kept, _ := action.ReadKept[CredentialInput](row.Body) // written by this package alone
	return Credential{ID: row.ID, MachineID: row.MachineID, CredentialInput: kept, Version: row.Version}
}

var credentials = action.Records[setup.Credential, Credential]{What: "the credential", Lock: setup.LockCredential,
	Read: setup.CredentialByID, Version: func(r setup.Credential) int { return r.Version },
	Told: func(r setup.Credential) any { return tellCredential(r).CredentialInput }, View: tellCredential,
	Machine: func(r setup.Credential) *int64 { return &r.MachineID }}

// Credentials lists those of a machine, for staff.
func (s *Service) Credentials(ctx context.Context, actor action.Actor, machineID int64) (Credentials, error) {
	told := Credentials{[]Credential{}}
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return told, err
	}
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return told, err
	}
	rows, err := setup.Credentials(ctx, s.kernel.Reader(ctx), machineID, mostCredentials)
	for _, row := range rows {
		one := tellCredential(row)
		one.MayLook = one.maySee(actor)
		told.Credentials = append(told.Credentials, one)
	}
	return told, err
}

func (c Credential) maySee(actor action.Actor) bool {
	return action.MayKeepTheRecord.Include(actor.Role) || c.ForTechnicians && action.MayWriteSheets.Include(actor.Role)
}

func (in *CredentialInput) check() error {
	if in.Kind == "" {
		in.Kind = "sign-on"
	}
	err := input.CheckAll(input.OneLine("what", &in.What), input.OneLine("user", &in.User), input.Lines("note",
		&in.Note))
	if err == nil && in.What == "" {
		err = action.Reject("what", "say what it is for, as sign-on of the operator")
	}
	return err
}

func checkSecret(secret string) error {
	switch {
	case secret == "":
		return action.Reject("secret", "is empty; write what is typed, or leave the record out")
	case len(secret) > mostSecret:
		return action.Reject("secret", "is too long")
	}
	return input.NoControl("secret", secret, "\n\r\t")
}

// PutAway keeps a credential. Its secret goes neither into the history nor into an export.
func (s *Service) PutAway(ctx context.Context, actor action.Actor, machineID int64, in CredentialInput,
	secret string) (Credential, error) {
	var added Credential
	if err := input.CheckAll(in.check(), checkSecret(secret)); err != nil {
		return added, err
	}
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.MachineByID(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := setup.InsertCredential(ctx, tx, setup.Credential{MachineID: machineID, Body: action.ToKeep(in)},
			secret)
		if err != nil {
			return err
		}
		row, err := setup.CredentialByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tellCredential(row)
		added.MayLook = true
		return action.Record(ctx, tx, actor, eventAddCredential, id, &machineID, nil, in)
	})
	return added, err
}

// ChangeCredential rewrites one, starting from a version; nil leaves its secret as it is.
func (s *Service) ChangeCredential(ctx context.Context, actor action.Actor, id int64, version int, in CredentialInput,
	secret *string) (Credential, error) {
	err := in.check()
	if err == nil && secret != nil {
		err = checkSecret(*secret)
	}
	if err != nil {
		return Credential{}, err
	}
	changed, err := credentials.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayKeepTheRecord,
		Event: eventChangeCredential, ID: id, Version: version}, func(tx *sqlx.Tx, before setup.Credential) error {
		if before.Voided {
			return action.ErrNotFound
		}
		return setup.UpdateCredential(ctx, tx, setup.Credential{ID: id, Body: action.ToKeep(in)}, secret)
	})
	changed.MayLook = true
	return changed, err
}

// See tells the secret of one, and keeps in the history who looked.
func (s *Service) See(ctx context.Context, actor action.Actor, id int64) (Secret, error) {
	var seen Secret
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := setup.CredentialByID(ctx, tx, id)
		if err != nil {
			return err
		}
		one := tellCredential(row)
		if row.Voided {
			return action.ErrNotFound
		}
		if !one.maySee(actor) {
			return action.ErrForbidden
		}
		if seen.Secret, err = setup.Secret(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventSeeCredential, id, &one.MachineID, nil, one.CredentialInput)
	})
	if err != nil {
		return Secret{}, err // nobody sees what the history does not keep
	}
	return seen, nil
}

var voidedCredential = action.Voiding[setup.Credential]{Roles: action.MayKeepTheRecord, Event: eventVoidCredential,
	Back:     eventTakeBackVoidCredential,
	IsVoided: func(r setup.Credential) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r setup.Credential, voided bool) error {
		return setup.VoidCredential(ctx, tx, r.ID, voided)
	}}

// VoidCredential strikes one out.
func (s *Service) VoidCredential(ctx context.Context, actor action.Actor, id int64, version int) (event int64,
	err error) {
	return credentials.Void(ctx, s.kernel, actor, voidedCredential, id, version)
}

func (s *Service) undoVoidCredential(ctx context.Context, actor action.Actor, e storehistory.EventRow) error {
	return credentials.Unvoid(ctx, s.kernel, actor, voidedCredential, e)
}
