package action

import (
	"slices"
	"time"
)

// Actor is who does an action.
type Actor struct {
	AccountID int64
	Name      string
	Role      Role
	Zone      *time.Location // in which the collection counts its days; nil for UTC
}

// Role says what an account is for.
type Role string

// Roles.
const (
	Curator    Role = "curator"    // keeps the record
	Technician Role = "technician" // works on machines
	Viewer     Role = "viewer"     // looks
)

// Roles is a set of roles that an action is open to.
type Roles []Role

// Who may do what. The interface asks the same lists.
var (
	MayLook          = Roles{Curator, Technician, Viewer}
	MayWriteSheets   = Roles{Curator, Technician}
	MayKeepTheRecord = Roles{Curator}
)

// Include reports whether a role is among them.
func (r Roles) Include(role Role) bool { return slices.Contains(r, role) }

// Account is the actor's account; nil for the command line.
func (a Actor) Account() *int64 {
	if a.AccountID == 0 {
		return nil
	}
	return &a.AccountID
}

// Must refuses with ErrForbidden who has none of the roles.
func (a Actor) Must(roles Roles) error {
	if !roles.Include(a.Role) {
		return ErrForbidden
	}
	return nil
}

// Hides reports whether names are kept from an actor.
func (a Actor) Hides() bool { return !MayWriteSheets.Include(a.Role) }

// KeptActor is an actor as a job keeps it that works for them.
type KeptActor struct {
	AccountID int64  `json:"accountId"`
	Name      string `json:"name"`
	Role      Role   `json:"role"`
	Zone      string `json:"zone"`
}

// KeepActor returns what a job has to keep of an actor.
func KeepActor(a Actor) KeptActor { return KeptActor{a.AccountID, a.Name, a.Role, a.ZoneName()} }

// Actor is who was kept.
func (k KeptActor) Actor() (Actor, error) {
	zone, err := ZoneOf(k.Zone)
	return Actor{AccountID: k.AccountID, Name: k.Name, Role: k.Role, Zone: zone}, err
}
