package people

import (
	"time"

	storepeople "frugalheron/store/people"
)

// Mention is a place in a text that names a person.
type Mention struct {
	ID        int64     `json:"id"`
	PartyID   int64     `json:"partyId"`
	Party     string    `json:"party" says:"text" doc:"Whom it may name"`
	Role      string    `json:"role" doc:"What others than staff read in its place"`
	Spelling  string    `json:"spelling" says:"text" doc:"The name as it is written there"`
	Around    string    `json:"around" says:"text" doc:"The words around it"`
	MachineID *int64    `json:"machineId" doc:"The machine it was written about, or null"`
	Accession string    `json:"accession"`
	LotID     *int64    `json:"lotId" doc:"The arrival it was written about, or null"`
	Subject   string    `json:"subject" doc:"What sort of record it was written about"`
	At        time.Time `json:"at"`
	Meant     *bool     `json:"meant" doc:"It is this person; null while nobody has decided"`
	Version   int       `json:"version"`
}

func mentionOf(r storepeople.Mention) Mention {
	return Mention{ID: r.ID, PartyID: r.PartyID, Party: r.Party, Role: r.Role, Spelling: r.Spelling, Around: r.Around,
		MachineID: r.MachineID, Accession: r.Accession, LotID: r.LotID, Subject: r.Subject, At: r.At, Meant: r.Meant,
		Version: r.Version}
}

// PartyInput is what people write about a person or an organisation.
type PartyInput struct {
	Name      string `json:"name" says:"text" maxLength:"200" example:"Harbour pilot office"`
	Kind      string `json:"kind" enum:"person,organisation"`
	Private   bool   `json:"private" required:"false" doc:"A private person: the name is shown to staff only, the role to everybody"`
	Role      string `json:"role" says:"text" maxLength:"200" required:"false" doc:"What everybody may know of a private person, as a former pilot"`
	Spellings string `json:"spellings" says:"text" maxLength:"1000" required:"false" doc:"Other ways in which the name is written, a line each"`
	Place     string `json:"place" says:"text" maxLength:"200" required:"false"`
	Note      string `json:"note" says:"text" maxLength:"4000" required:"false"`
}

// Party is a person or an organisation that had to do with things of the collection.
type Party struct {
	ID int64 `json:"id"`
	PartyInput
	Version int `json:"version"`
}

func partyOf(r storepeople.Party) Party {
	return Party{ID: r.ID, PartyInput: PartyInput(r.PartyFields), Version: r.Version}
}

// PersonalDataInput say that data of former owners is on a medium of a machine, never what it says.
type PersonalDataInput struct {
	Medium    string  `json:"medium" says:"text" maxLength:"200" doc:"Where it is, as hard disk, second partition"`
	Sort      string  `json:"sort" says:"text" maxLength:"200" doc:"What kind of data, as letters; never what it says"`
	Decision  string  `json:"decision" enum:"open,keep sealed,return,wipe,archive" default:"open" required:"false"`
	Reason    string  `json:"reason" says:"text" maxLength:"1000" required:"false"`
	DecidedBy string  `json:"decidedBy" says:"text" maxLength:"200" required:"false"`
	DecidedOn *string `json:"decidedOn" required:"false" nullable:"true" doc:"YYYY-MM-DD"`
	DoneOn    *string `json:"doneOn" required:"false" nullable:"true" doc:"Day on which the decision was carried out, YYYY-MM-DD"`
}

// PersonalData is such a note.
type PersonalData struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	PersonalDataInput
	FoundOn string `json:"foundOn"`
	Version int    `json:"version"`
}

func personalDataOf(r storepeople.PersonalData) PersonalData {
	return PersonalData{ID: r.ID, MachineID: r.MachineID, PersonalDataInput: PersonalDataInput(r.PersonalDataFields),
		FoundOn: r.FoundOn, Version: r.Version}
}
