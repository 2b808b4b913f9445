package evidence

import (
	"time"

	storeevidence "frugalheron/store/evidence"
)

// Citation says where a statement comes from.
type Citation struct {
	Kind      string  `json:"kind" enum:"seen,counted,measured,tested,firmware,label,document,seller,recalled,inferred,hearsay" doc:"Kind of source"`
	Cited     string  `json:"cited" says:"text" maxLength:"1000" required:"false" doc:"The source in words, as the rating plate"`
	Page      string  `json:"page" maxLength:"100" required:"false"`
	Link      string  `json:"link" says:"text" maxLength:"2000" required:"false" doc:"An address, kept as text"`
	PictureID *int64  `json:"pictureId" required:"false" nullable:"true" doc:"A picture or document of the collection that shows it"`
	Region    *Region `json:"region,omitempty" doc:"Where on the picture"`
	PartyID   *int64  `json:"partyId" required:"false" nullable:"true" doc:"Who said it, or whom it is about"`
	StatedOn  string  `json:"statedOn" maxLength:"40" required:"false" doc:"When it was said or seen, EDTF"`
}

// Region is a part of a picture, in parts of its width and height, from the upper left corner.
type Region struct {
	X float64 `json:"x" minimum:"0" maximum:"1"`
	Y float64 `json:"y" minimum:"0" maximum:"1"`
	W float64 `json:"w" minimum:"0" maximum:"1"`
	H float64 `json:"h" minimum:"0" maximum:"1"`
}

// CitationOf is what goes out of one.
func CitationOf(r storeevidence.Citation) Citation {
	return Citation{Kind: r.Kind, Cited: r.Cited, Page: r.Page, Link: r.Link, PictureID: r.PictureID,
		Region: (*Region)(r.Region), PartyID: r.PartyID, StatedOn: r.StatedOn}
}

// Row is a citation as it is kept.
func (c Citation) Row() storeevidence.Citation {
	return storeevidence.Citation{Kind: c.Kind, Cited: c.Cited, Page: c.Page, Link: c.Link, PictureID: c.PictureID,
		Region: (*storeevidence.Region)(c.Region), PartyID: c.PartyID, StatedOn: c.StatedOn}
}

// RecordRef names a record that identifiers stand on: a machine, an assembly that is in no machine, or a
// lot with its documents.
type RecordRef struct {
	Kind string `json:"kind" enum:"machine,assembly,lot"`
	ID   int64  `json:"id" minimum:"1"`
}

// SharedIdentifier is an identifier that a record shares with another, and what was made of it.
type SharedIdentifier struct {
	Key      string     `json:"key"`
	Value    string     `json:"value" doc:"As it stands here"`
	Source   string     `json:"source" says:"text" doc:"Where it stands here"`
	Other    RecordRef  `json:"other"`
	Name     string     `json:"name" says:"text" doc:"What the other record is called"`
	There    string     `json:"there" says:"text" doc:"Where it stands there"`
	Decision string     `json:"decision" enum:",linked,dismissed" doc:"Empty while nobody has decided"`
	Reason   string     `json:"reason" says:"text"`
	By       string     `json:"by"`
	At       *time.Time `json:"at"`
}

func sharedIdentifierOf(r storeevidence.SharedIdentifier) SharedIdentifier {
	return SharedIdentifier{Key: r.Key, Value: r.Value, Source: r.Source, Other: RecordRef(r.Other), Name: r.Name,
		There: r.There, Decision: r.Decision, Reason: r.Reason, By: r.By, At: r.At}
}

// StatementInput is what one source says of an attribute of a machine.
type StatementInput struct {
	Attribute string `json:"attribute" maxLength:"60" doc:"Key of an attribute, or a name of its own" example:"memory"`
	Subject   string `json:"subject" says:"text" maxLength:"100" required:"false" doc:"The part that it is about, as HD1; empty for the machine"`
	Value     string `json:"value" says:"text" maxLength:"400" doc:"As it was said" example:"64K"`
	Nature    string `json:"nature" enum:",constant,state,part,seen-by" required:"false" doc:"In what way it is true; empty for that of the attribute. Seen-by: what firmware or a program shows of it"`
	Form      string `json:"form" enum:",text,identifier,quantity,range,list,size,date,version,address,yes-no" required:"false" doc:"How the value is written; empty for that of the attribute"`
	Citation
}

func (in StatementInput) row() storeevidence.StatementFields {
	return storeevidence.StatementFields{Attribute: in.Attribute, Subject: in.Subject, Value: in.Value,
		Nature: in.Nature, Form: in.Form, Citation: in.Citation.Row()}
}

// Statement is one that was kept.
type Statement struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	StatementInput
	Party     string    `json:"party" says:"text" doc:"Who said it, or empty"`
	Retracted string    `json:"retracted" says:"text" doc:"Why it does not count any more, or empty"`
	By        string    `json:"by" doc:"Who noted it"`
	At        time.Time `json:"at"`
	Version   int       `json:"version"`
}

func statementOf(r storeevidence.Statement) Statement {
	return Statement{ID: r.ID, MachineID: r.MachineID,
		StatementInput: StatementInput{r.Attribute, r.Subject, r.Value, r.Nature, r.Form,
			CitationOf(r.Citation)}, Party: r.Party,
		Retracted: r.Retracted, By: r.By, At: r.At, Version: r.Version}
}
