package evidence

import (
	"database/sql/driver"
	"encoding/json"
	"fmt"
)

// Citation says where a statement comes from.
type Citation struct {
	Kind      string  `db:"kind" json:"kind" enum:"seen,counted,measured,tested,firmware,label,document,seller,recalled,inferred,hearsay" doc:"Kind of source"`
	Cited     string  `db:"cited" json:"cited" says:"text" maxLength:"1000" required:"false" doc:"The source in words, as the rating plate"`
	Page      string  `db:"page" json:"page" maxLength:"100" required:"false"`
	Link      string  `db:"link" json:"link" says:"text" maxLength:"2000" required:"false" doc:"An address, kept as text"`
	PictureID *int64  `db:"picture_id" json:"pictureId" required:"false" nullable:"true" doc:"A picture or document of the collection that shows it"`
	Region    *Region `db:"region" json:"region,omitempty" doc:"Where on the picture"`
	PartyID   *int64  `db:"party_id" json:"partyId" required:"false" nullable:"true" doc:"Who said it, or whom it is about"`
	StatedOn  string  `db:"stated_on" json:"statedOn" maxLength:"40" required:"false" doc:"When it was said or seen, EDTF"`
}

// Region is a part of a picture, in parts of its width and height, from the upper left corner.
type Region struct {
	X float64 `json:"x" minimum:"0" maximum:"1"`
	Y float64 `json:"y" minimum:"0" maximum:"1"`
	W float64 `json:"w" minimum:"0" maximum:"1"`
	H float64 `json:"h" minimum:"0" maximum:"1"`
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
