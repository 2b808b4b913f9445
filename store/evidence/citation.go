package evidence

import (
	"database/sql/driver"
	"encoding/json"
	"fmt"
)

// Citation says where a statement comes from.
type Citation struct {
	Kind      string  `db:"kind"`  // kind of source
	Cited     string  `db:"cited"` // the source in words, as the rating plate
	Page      string  `db:"page"`
	Link      string  `db:"link"`       // an address, kept as text
	PictureID *int64  `db:"picture_id"` // a picture or document of the collection that shows it
	Region    *Region `db:"region"`     // where on the picture
	PartyID   *int64  `db:"party_id"`   // who said it, or whom it is about
	StatedOn  string  `db:"stated_on"`  // when it was said or seen, EDTF
}

// Region is a part of a picture, in parts of its width and height, from the upper left corner.
type Region struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
	W float64 `json:"w"`
	H float64 `json:"h"`
}

// Scan reads a region from the database.
func (r *Region) Scan(value any) error {
	switch v := value.(type) {
	case []byte:
		return json.Unmarshal(v, r)
	case string:
		return json.Unmarshal([]byte(v), r)
	}
	return fmt.Errorf("region: %T", value)
}

// Value writes a region to the database.
func (r Region) Value() (driver.Value, error) {
	encoded, err := json.Marshal(r)
	return string(encoded), err
}

// CitationColumns are those of a citation in a table that is called s.
const CitationColumns = `s.kind, s.cited, s.page, s.link, s.picture_id, s.region, s.party_id, s.stated_on`

// Args are the values of those columns, in their order, from kind on.
func (c Citation) Args() []any {
	return []any{c.Kind, c.Cited, c.Page, c.Link, c.PictureID, c.Region, c.PartyID, c.StatedOn}
}
