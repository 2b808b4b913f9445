package people

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// PartyFields are what people write about a person or an organisation.
type PartyFields struct {
	Name      string `db:"name"`
	Kind      string `db:"kind"`
	Private   bool   `db:"private"`   // a private person: the name is shown to staff only, the role to everybody
	Role      string `db:"role"`      // what everybody may know of a private person, as a former pilot
	Spellings string `db:"spellings"` // other ways in which the name is written, a line each
	Place     string `db:"place"`
	Note      string `db:"note"`
}

// Party is a person or an organisation that had to do with things of the collection.
type Party struct {
	ID int64 `db:"id"`
	PartyFields
	Version int `db:"version"`
}

const partyColumns = `id, name, kind, private, role, spellings, place, note, version`

// InsertParty adds a party and returns its id. A name that is there violates party_name_key.
func InsertParty(ctx context.Context, h pg.Handle, p PartyFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO party (name, kind, private, role, spellings, place, note) VALUES ($1, $2, $3, $4, $5, $6, $7)
			RETURNING id`,
		p.Name, p.Kind, p.Private, p.Role, p.Spellings, p.Place, p.Note)
	return id, err
}

// UpdateParty writes all fields and counts the version up. The caller holds the row's lock.
func UpdateParty(ctx context.Context, h pg.Handle, id int64, p PartyFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE party SET name = $2, kind = $3, private = $4, role = $5, spellings = $6, place = $7, note = $8,
		version = version + 1, updated_at = now() WHERE id = $1`, id, p.Name, p.Kind, p.Private, p.Role, p.Spellings,
		p.Place, p.Note)
	return err
}

// PartyByID reads a party.
func PartyByID(ctx context.Context, h pg.Handle, id int64) (Party, error) {
	return party(ctx, h, id, "")
}

// LockParty reads a party and keeps others from changing it until the transaction ends.
func LockParty(ctx context.Context, h pg.Handle, id int64) (Party, error) {
	return party(ctx, h, id, " FOR NO KEY UPDATE")
}

func party(ctx context.Context, h pg.Handle, id int64, lock string) (Party, error) {
	var p Party
	err := pg.Get(ctx, h, &p, fmt.Sprintf("party %d", id), `SELECT `+partyColumns+` FROM party WHERE id = $1`+lock, id)
	return p, err
}

// ListParties lists parties whose name holds all words, by name.
func ListParties(ctx context.Context, h pg.Handle, words []string, limit int) ([]Party, error) {
	parties := []Party{}
	where, args := pg.LikeAll(`lower(name || ' ' || spellings || ' ' || place)`, words, []any{limit})
	if where == "" {
		where = "true"
	}
	err := h.SelectContext(ctx, &parties,
		`SELECT `+partyColumns+` FROM party WHERE `+where+` ORDER BY lower(name), id LIMIT $1`, args...)
	return parties, err
}

// PrivatePerson is what keeping a person private takes.
type PrivatePerson struct {
	ID        int64  `db:"id"`
	Name      string `db:"name"`
	Spellings string `db:"spellings"`
	Role      string `db:"role"`
}

// PrivatePersons lists all private persons.
func PrivatePersons(ctx context.Context, h pg.Handle) ([]PrivatePerson, error) {
	persons := []PrivatePerson{}
	err := h.SelectContext(ctx, &persons, `SELECT id, name, spellings, role FROM party WHERE private ORDER BY id`)
	return persons, err
}
